import { Controller, Module } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { rowController } from '../row/row.controller.ts';

@ApiTags('action')
@Controller('api/projects/:projectId/actions')
class ActionController extends rowController('action') {}

@Module({ controllers: [ActionController] })
export class ActionModule {}
