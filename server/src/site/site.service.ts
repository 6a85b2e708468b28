import { Inject, Injectable } from '@nestjs/common';
import { siteBodySchema, type SiteBody } from '@eskovan/core/document';
import { Op, QueryTypes, type Transaction } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { gone, notFound } from '../common/problem.ts';
import { ROW_MODELS, SiteModel, type RowModel } from '../database/rows.ts';
import { FileUses } from '../file/file-uses.ts';

/** Sites that a project keeps: undoing a few placements finds them again at once. */
const KEPT = 6;
/** A page that computes asks again well within this. */
const LEASE_SECONDS = 20;

/** Keeps what was computed from a project's models, so that it is computed once and not by everybody. */
@Injectable()
export class SiteService {
  constructor(
    @Inject(Sequelize) private readonly sequelize: Sequelize,
    @Inject(FileUses) private readonly uses: FileUses,
  ) {}

  /** @throws ProblemException 404 when it has not been computed, or was by an older program */
  async get(projectId: string, key: string): Promise<SiteBody> {
    const site = await SiteModel.findOne({ where: { projectId, key } });
    const body = siteBodySchema.safeParse(site?.body);
    if (!site || !body.success) throw notFound('site');
    await site.update({ used: new Date() });
    return body.data;
  }

  async put(projectId: string, key: string, body: SiteBody): Promise<SiteBody> {
    await this.sequelize.transaction(async (transaction) => {
      await this.requireProject(projectId, transaction);
      await SiteModel.upsert({ projectId, key, body, used: new Date() }, { transaction });
      await this.uses.ofSite(projectId, key, body, transaction);
      const old = await SiteModel.findAll({
        where: { projectId },
        order: [['used', 'DESC']],
        offset: KEPT,
        transaction,
      });
      const keys = old.map((site) => site.key);
      await this.uses.dropSites(projectId, keys, transaction);
      await SiteModel.destroy({ where: { projectId, key: { [Op.in]: keys } }, transaction });
    });
    return body;
  }

  /**
   * Lets one page of all compute a site. The lease lapses by itself: who holds it asks again before that.
   * @returns whether the holder has it now
   */
  async lease(projectId: string, key: string, holder: string): Promise<boolean> {
    return this.sequelize.transaction(async (transaction) => {
      await this.requireProject(projectId, transaction);
      const [mine] = await this.sequelize.query<{ holder: string }>(
        `INSERT INTO site_lease (project_id, key, holder, until)
         VALUES (:projectId, :key, :holder, now() + interval '${LEASE_SECONDS} seconds')
         ON CONFLICT (project_id, key) DO UPDATE SET holder = :holder, until = EXCLUDED.until
           WHERE site_lease.holder = :holder OR site_lease.until < now()
         RETURNING holder`,
        { type: QueryTypes.SELECT, replacements: { projectId, key, holder }, transaction },
      );
      return mine !== undefined;
    });
  }

  /** Locked, so that a project's sites are put one after the other. */
  private async requireProject(projectId: string, transaction: Transaction): Promise<void> {
    const project = await ROW_MODELS.project.findOne<RowModel>({
      where: { id: projectId },
      transaction,
      lock: transaction.LOCK.NO_KEY_UPDATE,
    });
    if (!project) throw notFound('project');
    if (project.deleted) throw gone('project', projectId);
  }
}
