import { Controller, Get, Inject, Module, Param } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import {
  idSchema,
  projectCardSchema,
  projectDocumentSchema,
  type ProjectCard,
  type ProjectDocument,
} from '@eskovan/core/document';
import { z } from 'zod';
import { Documented } from '../common/documented.ts';
import { rowRoutes } from '../row/row.controller.ts';
import { ProjectService } from './project.service.ts';

@ApiTags('project')
@Controller('api/projects')
class ProjectController extends rowRoutes('project') {
  @Inject(ProjectService) private readonly projects!: ProjectService;

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
}

@Module({ controllers: [ProjectController], providers: [ProjectService] })
export class ProjectModule {}
