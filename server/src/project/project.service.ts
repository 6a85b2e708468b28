import { Inject, Injectable } from '@nestjs/common';
import { CHILD_KINDS, type ProjectCard, type ProjectDocument, type Row } from '@eskovan/core/document';
import { Sequelize } from 'sequelize-typescript';
import { ROW_MODELS, type RowModel } from '../database/rows.ts';
import { RowService } from '../row/row.service.ts';

@Injectable()
export class ProjectService {
  constructor(
    @Inject(RowService) private readonly rows: RowService,
    @Inject(Sequelize) private readonly sequelize: Sequelize,
  ) {}

  /** Everything of one project, for opening it. */
  async document(projectId: string): Promise<ProjectDocument> {
    const project = await this.rows.get('project', projectId, projectId);
    const lists = await Promise.all(CHILD_KINDS.map((kind) => this.rows.list(kind, projectId)));
    const children = Object.fromEntries(CHILD_KINDS.map((kind, i) => [kind, lists[i]]));
    return { project, ...children } as unknown as ProjectDocument;
  }

  /** The Projects screen, newest first. */
  async cards(): Promise<ProjectCard[]> {
    const projects = await ROW_MODELS.project.findAll<RowModel>({
      where: { deleted: null },
      order: [['updated', 'DESC']],
    });
    return Promise.all(projects.map(({ id }) => this.card(id)));
  }

  private async card(projectId: string): Promise<ProjectCard> {
    const project = (await this.rows.get('project', projectId, projectId)) as Row<'project'>;
    const counts = Object.fromEntries(
      await Promise.all(
        CHILD_KINDS.map(async (kind) => [kind, await ROW_MODELS[kind].count({ where: { projectId, deleted: null } })]),
      ),
    ) as ProjectCard['counts'];
    const [found] = await this.sequelize.query(
      `SELECT body->'thumbnail'->>'sha256' AS cover FROM view
       WHERE project_id = :projectId AND deleted IS NULL AND body->'thumbnail'->>'sha256' IS NOT NULL
       ORDER BY "order", created LIMIT 1`,
      { replacements: { projectId } },
    );
    return { project, counts, cover: (found as { cover: string }[])[0]?.cover ?? null };
  }
}
