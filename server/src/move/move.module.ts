import { Controller, Module } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { rowController } from '../row/row.controller.ts';

@ApiTags('move')
@Controller('api/projects/:projectId/moves')
class MoveController extends rowController('move') {}

@Module({ controllers: [MoveController] })
export class MoveModule {}
