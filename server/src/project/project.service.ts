import { Inject, Injectable } from '@nestjs/common';
import { KINDS, type Kind, type ProjectCard, type ProjectDocument, type Row } from '@eskovan/core/document';
import { Sequelize } from 'sequelize-typescript';
import { ROW_MODELS, type RowModel } from '../database/rows.ts';
import { RowService } from '../row/row.service.ts';

type Child = Exclude<Kind, 'project'>;
const CHILDREN = KINDS.filter((kind): kind is Child => kind !== 'project');

@Injectable()
export class ProjectService {
  constructor(
    @Inject(RowService) private readonly rows: RowService,
    @Inject(Sequelize) private readonly sequelize: Sequelize,
  ) {}

  /** Everything of one project, for opening it. */
  async document(projectId: string): Promise<ProjectDocument> {
    const project = await this.rows.get('project', projectId, projectId);
    const [model, move, view, take, link] = await Promise.all([
      this.rows.list('model', projectId),
      this.rows.list('move', projectId),
      this.rows.list('view', projectId),
      this.rows.list('take', projectId),
      this.rows.list('link', projectId),
    ]);
    return { project, model, move, view, take, link };
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
        CHILDREN.map(async (kind) => [kind, await ROW_MODELS[kind].count({ where: { projectId, deleted: null } })]),
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
