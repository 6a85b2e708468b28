import { Body, Controller, Delete, Get, Inject, Module, Param, Patch, Post, Put, Query } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import {
  changeRequestSchema,
  createRequestSchema,
  idSchema,
  projectCardSchema,
  projectDocumentSchema,
  revisionRequestSchema,
  rowSchema,
  type ProjectCard,
  type ProjectDocument,
  type Row,
} from '@eskovan/core/document';
import { z } from 'zod';
import { Documented } from '../common/documented.ts';
import { RowService, type NewRow, type RowChange } from '../row/row.service.ts';
import { ProjectService } from './project.service.ts';

const reply = rowSchema('project');
const revisionQuerySchema = z.strictObject({ revision: z.coerce.number().int().min(1) });

@ApiTags('project')
@Controller('api/projects')
class ProjectController {
  constructor(
    @Inject(ProjectService) private readonly projects: ProjectService,
    @Inject(RowService) private readonly rows: RowService,
  ) {}

  @Get()
  @Documented({ summary: 'All projects as cards, newest first', reply: z.array(projectCardSchema) })
  cards(): Promise<ProjectCard[]> {
    return this.projects.cards();
  }

  @Get(':id/document')
  @Documented({ summary: 'Everything of one project', reply: projectDocumentSchema, problems: [404] })
  document(@Param('id', { schema: idSchema }) id: string): Promise<ProjectDocument> {
    return this.projects.document(id);
  }

  @Put(':id')
  @Documented({
    summary: 'Makes a project; harmless to repeat',
    body: createRequestSchema('project'),
    reply,
    problems: [409, 422],
  })
  create(
    @Param('id', { schema: idSchema }) id: string,
    @Body({ schema: createRequestSchema('project') }) wanted: Omit<NewRow<'project'>, 'id' | 'projectId'>,
  ): Promise<Row<'project'>> {
    return this.rows.create('project', { ...wanted, id, projectId: id });
  }

  @Patch(':id')
  @Documented({
    summary: 'Changes a project that is still at the named revision',
    body: changeRequestSchema('project'),
    reply,
    problems: [404, 409, 422],
  })
  change(
    @Param('id', { schema: idSchema }) id: string,
    @Body({ schema: changeRequestSchema('project') }) change: RowChange<'project'>,
  ): Promise<Row<'project'>> {
    return this.rows.change('project', id, id, change);
  }

  @Delete(':id')
  @Documented({ summary: 'Deletes a project; it can be restored', reply, problems: [404, 409] })
  remove(
    @Param('id', { schema: idSchema }) id: string,
    @Query({ schema: revisionQuerySchema }) { revision }: { revision: number },
  ): Promise<Row<'project'>> {
    return this.rows.remove('project', id, id, revision);
  }

  @Post(':id/restore')
  @Documented({ summary: 'Brings a deleted project back', body: revisionRequestSchema, reply, problems: [404, 409] })
  restore(
    @Param('id', { schema: idSchema }) id: string,
    @Body({ schema: revisionRequestSchema }) { revision }: { revision: number },
  ): Promise<Row<'project'>> {
    return this.rows.restore('project', id, id, revision);
  }
}

@Module({ controllers: [ProjectController], providers: [ProjectService] })
export class ProjectModule {}
