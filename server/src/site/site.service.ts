import { Inject, Injectable } from '@nestjs/common';
import { siteBodySchema, type SiteBody } from '@eskovan/core/document';
import { Op } from 'sequelize';
import { notFound } from '../common/problem.ts';
import { ROW_MODELS, SiteModel, type RowModel } from '../database/rows.ts';
import { FileStore } from '../file/file-store.ts';

/** Sites that a project keeps: undoing a few placements finds them again at once. */
const KEPT = 6;

/** Keeps what was computed from a project's models, so that it is computed once and not by everybody. */
@Injectable()
export class SiteService {
  constructor(@Inject(FileStore) private readonly files: FileStore) {}

  /** @throws ProblemException 404 when it has not been computed, or was by an older program */
  async get(projectId: string, key: string): Promise<SiteBody> {
    const site = await SiteModel.findOne({ where: { projectId, key } });
    const body = siteBodySchema.safeParse(site?.body);
    if (!site || !body.success) throw notFound('site');
    await site.update({ used: new Date() });
    return body.data;
  }

  async put(projectId: string, key: string, body: SiteBody): Promise<SiteBody> {
    if (!(await ROW_MODELS.project.findOne<RowModel>({ where: { id: projectId, deleted: null } })))
      throw notFound('project');
    await this.files.requireAll(body);
    await SiteModel.upsert({ projectId, key, body, used: new Date() });
    const old = await SiteModel.findAll({ where: { projectId }, order: [['used', 'DESC']], offset: KEPT });
    if (old.length > 0)
      await SiteModel.destroy({ where: { projectId, key: { [Op.in]: old.map((site) => site.key) } } });
    return body;
  }
}
