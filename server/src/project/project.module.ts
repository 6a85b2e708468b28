import { Controller, Get, Inject, Module, Param, Query, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import {
  catchUpSchema,
  idSchema,
  projectCardSchema,
  projectDocumentSchema,
  rowSchema,
  type CatchUp,
  type Row,
} from '@eskovan/core/document';
import type { Request, Response } from 'express';
import { z } from 'zod';
import { Documented } from '../common/documented.ts';
import { RowService } from '../row/row.service.ts';
import { sendKept } from './kept.ts';
import { ProjectService } from './project.service.ts';

const afterQuerySchema = z.strictObject({ after: z.coerce.number().int().min(0).max(Number.MAX_SAFE_INTEGER) });

@ApiTags('project')
@Controller('api/projects')
class ProjectController {
  constructor(
    @Inject(ProjectService) private readonly projects: ProjectService,
    @Inject(RowService) private readonly rows: RowService,
  ) {}

  @Get()
  @Documented({ summary: 'All projects as cards, newest first', reply: z.array(projectCardSchema) })
  async cards(@Req() request: Request, @Res() response: Response): Promise<void> {
    sendKept(request, response, await this.projects.cards());
  }

  @Get(':id')
  @Documented({ summary: 'One project', reply: rowSchema('project'), problems: [404, 409] })
  get(@Param('id', { schema: idSchema }) id: string): Promise<Row<'project'>> {
    return this.rows.get('project', id, id);
  }

  @Get(':id/document')
  @Documented({ summary: 'Everything of one project', reply: projectDocumentSchema, problems: [404] })
  async document(
    @Param('id', { schema: idSchema }) id: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    sendKept(request, response, await this.projects.document(id));
  }

  @Get(':id/changes')
  @Documented({ summary: 'What has changed since an edit', reply: catchUpSchema, problems: [404] })
  changes(
    @Param('id', { schema: idSchema }) id: string,
    @Query({ schema: afterQuerySchema }) { after }: z.infer<typeof afterQuerySchema>,
  ): Promise<CatchUp> {
    return this.projects.changes(id, after);
  }
}

@Module({ controllers: [ProjectController], providers: [ProjectService] })
export class ProjectModule {}
