import { Controller, Module } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { rowController } from '../row/row.controller.ts';

@ApiTags('reel')
@Controller('api/projects/:projectId/reels')
class ReelController extends rowController('reel') {}

@ApiTags('shot')
@Controller('api/projects/:projectId/shots')
class ShotController extends rowController('shot') {}

@Module({ controllers: [ReelController, ShotController] })
export class ReelModule {}
