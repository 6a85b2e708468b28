import { Inject, Injectable } from '@nestjs/common';
import type { Edit, KindRow } from '@eskovan/core/document';
import { QueryTypes, type Transaction } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { ProblemException } from '../common/problem.ts';
import { namedFiles } from './named-files.ts';

/** What is computed from a project, by kind. */
export type Computed = 'site' | 'lit';
type User = 'row' | 'edit' | Computed;

/** Which row, edit or site needs which file. The database holds on to files that are used. */
@Injectable()
export class FileUses {
  constructor(@Inject(Sequelize) private readonly sequelize: Sequelize) {}

  /** @throws ProblemException 422 when a row names a file that is not kept here */
  async ofRows(rows: readonly KindRow[], transaction: Transaction): Promise<void> {
    for (const { row } of rows) await this.replace('row', row.id, namedFiles(row.body), transaction);
  }

  /** An undo may bring back what a person's edit replaced; what machines wrote is made again. */
  async ofEdit(edit: Edit, transaction: Transaction): Promise<void> {
    if (!edit.machine) await this.add('edit', edit.id, namedFiles(edit.changes), transaction, { lenient: true });
  }

  async ofComputed(
    what: Computed,
    { projectId, key, body }: { projectId: string; key: string; body: object },
    transaction: Transaction,
  ): Promise<void> {
    await this.replace(what, computedOwner(projectId, key), namedFiles(body), transaction);
  }

  async dropComputed(
    what: Computed,
    projectId: string,
    keys: readonly string[],
    transaction: Transaction,
  ): Promise<void> {
    if (keys.length === 0) return;
    await this.sequelize.query(`DELETE FROM file_use WHERE used_by = :what AND owner IN (:owners)`, {
      replacements: { what, owners: keys.map((key) => computedOwner(projectId, key)) },
      transaction,
    });
  }

  /** What a file is used as; null where nothing uses it. */
  async mediaTypeOf(sha256: string): Promise<string | null> {
    const [use] = await this.sequelize.query<{ media_type: string }>(
      `SELECT media_type FROM file_use WHERE sha256 = :sha256 ORDER BY used_by DESC LIMIT 1`,
      { type: QueryTypes.SELECT, replacements: { sha256 } },
    );
    return use?.media_type ?? null;
  }

  private async replace(
    user: User,
    owner: string,
    files: Map<string, string>,
    transaction: Transaction,
  ): Promise<void> {
    await this.sequelize.query(`DELETE FROM file_use WHERE used_by = :user AND owner = :owner`, {
      replacements: { user, owner },
      transaction,
    });
    await this.add(user, owner, files, transaction);
  }

  private async add(
    user: User,
    owner: string,
    files: Map<string, string>,
    transaction: Transaction,
    { lenient = false } = {},
  ): Promise<void> {
    if (files.size === 0) return;
    // Locked, so that no sweep takes them between this look and the use.
    const kept = await this.sequelize.query<{ sha256: string }>(
      `WITH kept AS (SELECT sha256 FROM file WHERE sha256 IN (:names) ORDER BY sha256 FOR KEY SHARE)
       INSERT INTO file_use (sha256, used_by, owner, media_type)
       SELECT kept.sha256, :user, :owner, named.media_type FROM kept
       JOIN jsonb_to_recordset(:files::jsonb) AS named (sha256 text, media_type text) ON named.sha256 = kept.sha256
       ON CONFLICT DO NOTHING RETURNING sha256`,
      {
        type: QueryTypes.SELECT,
        replacements: {
          names: [...files.keys()],
          user,
          owner,
          files: JSON.stringify([...files].map(([sha256, media_type]) => ({ sha256, media_type }))),
        },
        transaction,
      },
    );
    if (kept.length < files.size && !lenient)
      throw new ProblemException(422, {
        code: 'file-missing',
        message: 'This names a file that was never stored completely. Upload it again.',
      });
  }
}

const computedOwner = (projectId: string, key: string) => `${projectId} ${key}`;
