import { Controller, Module } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { rowController } from '../row/row.controller.ts';

@ApiTags('link')
@Controller('api/projects/:projectId/links')
class LinkController extends rowController('link') {}

@Module({ controllers: [LinkController] })
export class LinkModule {}
