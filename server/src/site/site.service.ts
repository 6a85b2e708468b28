import { Inject, Injectable } from '@nestjs/common';
import { litBodySchema, siteBodySchema, type LitBody, type SiteBody } from '@eskovan/core/document';
import { Op, QueryTypes, type Transaction } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { gone, notFound } from '../common/problem.ts';
import { LitModel, ROW_MODELS, SiteModel, type RowModel } from '../database/rows.ts';
import { FileUses, type Computed } from '../file/file-uses.ts';

/**
 * What is kept of a project: undoing a few placements finds sites again at once. Lights are those of a site, and what
 * they were before somebody tried another time of day, and what lamps that dim give.
 */
export const KEPT = {
  site: { table: SiteModel, schema: siteBodySchema, most: 6 },
  lit: { table: LitModel, schema: litBodySchema, most: 64 },
} as const;
interface Bodies {
  site: SiteBody;
  lit: LitBody;
}
/** A page that computes asks again well within this. */
const LEASE_SECONDS = 20;

/** Keeps what was computed from a project's models, so that it is computed once and not by everybody. */
@Injectable()
export class SiteService {
  constructor(
    @Inject(Sequelize) private readonly sequelize: Sequelize,
    @Inject(FileUses) private readonly uses: FileUses,
  ) {}

  /** What is kept; null when it has not been computed, or was by an older program. */
  async get<C extends Computed>(what: C, projectId: string, key: string): Promise<Bodies[C] | null> {
    const { table, schema } = KEPT[what];
    const row = await table.findOne({ where: { projectId, key } });
    const body = schema.safeParse(row?.body);
    if (!row || !body.success) return null;
    await row.update({ used: new Date() });
    return body.data as Bodies[C];
  }

  async put<C extends Computed>(what: C, projectId: string, key: string, body: Bodies[C]): Promise<Bodies[C]> {
    const { table, most } = KEPT[what];
    await this.sequelize.transaction(async (transaction) => {
      await this.requireProject(projectId, transaction);
      await table.upsert({ projectId, key, body, used: new Date() }, { transaction });
      await this.uses.ofComputed(what, { projectId, key, body }, transaction);
      const old = await table.findAll({
        where: { projectId },
        order: [['used', 'DESC']],
        offset: most,
        transaction,
      });
      const keys = old.map((row) => row.key);
      await this.uses.dropComputed(what, projectId, keys, transaction);
      await table.destroy({ where: { projectId, key: { [Op.in]: keys } }, transaction });
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

  /** Gives a lease back; nothing happens where the holder has none. */
  async release(projectId: string, key: string, holder: string): Promise<void> {
    await this.sequelize.query(
      'DELETE FROM site_lease WHERE project_id = :projectId AND key = :key AND holder = :holder',
      { type: QueryTypes.DELETE, replacements: { projectId, key, holder } },
    );
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
