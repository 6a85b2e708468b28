import { Controller, Module } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { rowController } from '../row/row.controller.ts';

@ApiTags('view')
@Controller('api/projects/:projectId/views')
class ViewController extends rowController('view') {}

@Module({ controllers: [ViewController] })
export class ViewModule {}
