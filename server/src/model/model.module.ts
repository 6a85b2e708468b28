import { Controller, Module } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { rowController } from '../row/row.controller.ts';

@ApiTags('model')
@Controller('api/projects/:projectId/models')
class ModelController extends rowController('model') {}

@Module({ controllers: [ModelController] })
export class ModelModule {}
