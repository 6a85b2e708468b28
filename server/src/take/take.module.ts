import { Controller, Module } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { rowController } from '../row/row.controller.ts';

@ApiTags('take')
@Controller('api/projects/:projectId/takes')
class TakeController extends rowController('take') {}

@Module({ controllers: [TakeController] })
export class TakeModule {}
