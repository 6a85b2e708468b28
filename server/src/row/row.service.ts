import { Inject, Injectable } from '@nestjs/common';
import type { Kind, Row } from '@eskovan/core/document';
import { QueryTypes } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { notFound } from '../common/problem.ts';
import { readRows, toRow, type StoredRow } from './row-reading.ts';

/** Columns of a row by the names of core's `Row`. */
export const ROW_COLUMNS = `id, project_id AS "projectId", name, "order", body, version, revision, created, updated, deleted`;

/** Reading what is saved; all writing goes through edits. */
@Injectable()
export class RowService {
  constructor(@Inject(Sequelize) private readonly sequelize: Sequelize) {}

  /** Rows of a project that are not deleted, in order. */
  async list<K extends Kind>(kind: K, projectId: string): Promise<Row<K>[]> {
    const stored = await this.select(
      `SELECT ${ROW_COLUMNS} FROM ${kind} WHERE project_id = :projectId AND deleted IS NULL ORDER BY "order", created, id`,
      { projectId },
    );
    return readRows(kind, stored).rows;
  }

  /** @throws ProblemException 404 for a row that is not there or deleted */
  async get<K extends Kind>(kind: K, projectId: string, id: string): Promise<Row<K>> {
    const [row] = await this.select(`SELECT ${ROW_COLUMNS} FROM ${kind} WHERE id = :id AND project_id = :projectId`, {
      id,
      projectId,
    });
    if (!row || row.deleted) throw notFound(kind);
    return toRow(kind, row);
  }

  /** Of some rows those that are there, deleted or not. */
  async some<K extends Kind>(kind: K, projectId: string, ids: readonly string[]): Promise<Row<K>[]> {
    if (ids.length === 0) return [];
    const stored = await this.select(
      `SELECT ${ROW_COLUMNS} FROM ${kind} WHERE project_id = :projectId AND id IN (:ids) ORDER BY "order", created, id`,
      { projectId, ids },
    );
    return readRows(kind, stored).rows;
  }

  private select(sql: string, replacements: Record<string, unknown>): Promise<StoredRow[]> {
    return this.sequelize.query<StoredRow>(sql, { type: QueryTypes.SELECT, replacements });
  }
}
