import { Inject, Injectable } from '@nestjs/common';
import { DOCUMENT_VERSION, migrateBody, type BodyOf, type Kind, type Row } from '@eskovan/core/document';
import { UniqueConstraintError, type Transaction } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { conflict, notFound } from '../common/problem.ts';
import { ROW_MODELS, type RowModel } from '../database/rows.ts';
import { FileStore } from '../file/file-store.ts';
import { LiveService } from '../live/live.service.ts';

export interface NewRow<K extends Kind> {
  id: string;
  projectId: string;
  name: string;
  order: number;
  body: BodyOf<K>;
}

export interface RowChange<K extends Kind> {
  revision: number;
  name?: string | undefined;
  order?: number | undefined;
  body?: BodyOf<K> | undefined;
}

/** The life that all saved things share: list, read, create, change, delete, restore. */
@Injectable()
export class RowService {
  constructor(
    @Inject(Sequelize) private readonly sequelize: Sequelize,
    @Inject(FileStore) private readonly files: FileStore,
    @Inject(LiveService) private readonly live: LiveService,
  ) {}

  async list<K extends Kind>(kind: K, projectId: string): Promise<Row<K>[]> {
    const rows = await ROW_MODELS[kind].findAll<RowModel>({
      where: { projectId, deleted: null },
      order: [
        ['order', 'ASC'],
        ['created', 'ASC'],
        ['id', 'ASC'],
      ],
    });
    return rows.map((row) => toRow(kind, row));
  }

  async get<K extends Kind>(kind: K, projectId: string, id: string): Promise<Row<K>> {
    const row = await this.find(kind, projectId, id);
    if (!row || row.deleted) throw notFound(kind);
    return toRow(kind, row);
  }

  /** Makes a row. The same request twice makes one row. */
  async create<K extends Kind>(kind: K, wanted: NewRow<K>): Promise<Row<K>> {
    await this.files.requireAll(wanted.body);
    try {
      const made = await this.sequelize.transaction(async (transaction) => {
        if (kind !== 'project') await this.requireProject(wanted.projectId, transaction);
        const body = kind === 'take' ? await this.withTakeNumber(wanted as NewRow<'take'>, transaction) : wanted.body;
        const now = new Date();
        return ROW_MODELS[kind].create<RowModel>(
          { ...wanted, body, version: DOCUMENT_VERSION, revision: 1, created: now, updated: now, deleted: null },
          { transaction },
        );
      });
      return this.told(kind, made);
    } catch (error) {
      if (!(error instanceof UniqueConstraintError)) throw error;
      const known = await this.find(kind, wanted.projectId, wanted.id);
      if (!known) throw conflict(kind, null);
      return toRow(kind, known);
    }
  }

  /** @throws ProblemException 409 with the row as it is now, when `revision` is not the newest */
  async change<K extends Kind>(kind: K, projectId: string, id: string, change: RowChange<K>): Promise<Row<K>> {
    if (change.body !== undefined) await this.files.requireAll(change.body);
    const { revision, ...values } = change;
    return this.write(kind, projectId, id, revision, {
      ...Object.fromEntries(Object.entries(values).filter(([, value]) => value !== undefined)),
      ...(change.body === undefined ? {} : { version: DOCUMENT_VERSION }),
    });
  }

  async remove<K extends Kind>(kind: K, projectId: string, id: string, revision: number): Promise<Row<K>> {
    return this.write(kind, projectId, id, revision, { deleted: new Date() });
  }

  async restore<K extends Kind>(kind: K, projectId: string, id: string, revision: number): Promise<Row<K>> {
    return this.write(kind, projectId, id, revision, { deleted: null });
  }

  private async write<K extends Kind>(
    kind: K,
    projectId: string,
    id: string,
    revision: number,
    values: Record<string, unknown>,
  ): Promise<Row<K>> {
    const [, [written]] = await (ROW_MODELS[kind] as typeof RowModel & { new (): RowModel }).update<RowModel>(
      { ...values, revision: revision + 1, updated: new Date() },
      { where: { id, projectId, revision }, returning: true },
    );
    if (written) return this.told(kind, written);
    const current = await this.find(kind, projectId, id);
    if (!current) throw notFound(kind);
    throw conflict(kind, toRow(kind, current));
  }

  private find(kind: Kind, projectId: string, id: string): Promise<RowModel | null> {
    return ROW_MODELS[kind].findOne<RowModel>({ where: { id, projectId } });
  }

  private async requireProject(projectId: string, transaction: Transaction): Promise<void> {
    // Locked, so that numbers given within a project are given one after the other.
    const project = await ROW_MODELS.project.findOne<RowModel>({
      where: { id: projectId, deleted: null },
      transaction,
      lock: transaction.LOCK.UPDATE,
    });
    if (!project) throw notFound('project');
  }

  private async withTakeNumber(wanted: NewRow<'take'>, transaction: Transaction): Promise<BodyOf<'take'>> {
    const [rows] = await this.sequelize.query(
      `SELECT COALESCE(MAX((body->>'number')::int), 0) + 1 AS next FROM take WHERE project_id = :projectId`,
      { replacements: { projectId: wanted.projectId }, transaction },
    );
    return { ...wanted.body, number: (rows as { next: number }[])[0]!.next };
  }

  private told<K extends Kind>(kind: K, row: RowModel): Row<K> {
    this.live.tell({ projectId: row.projectId, kind, id: row.id, revision: row.revision });
    return toRow(kind, row);
  }
}

function toRow<K extends Kind>(kind: K, row: RowModel): Row<K> {
  return {
    id: row.id,
    projectId: row.projectId,
    name: row.name,
    order: row.order,
    body: migrateBody(kind, row.version, row.body),
    version: DOCUMENT_VERSION,
    revision: row.revision,
    created: row.created.toISOString(),
    updated: row.updated.toISOString(),
    deleted: row.deleted?.toISOString() ?? null,
  };
}
