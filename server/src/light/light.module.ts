import { Controller, Module } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { rowController } from '../row/row.controller.ts';

@ApiTags('light')
@Controller('api/projects/:projectId/lights')
class LightController extends rowController('light') {}

@Module({ controllers: [LightController] })
export class LightModule {}
