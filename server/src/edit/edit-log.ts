import { Inject, Injectable } from '@nestjs/common';
import {
  sameFacet,
  type BeforeEntry,
  type Change,
  type Clash,
  type Edit,
  type Facet,
  type Kind,
  type LogEntry,
} from '@eskovan/core/document';
import { QueryTypes, type Transaction } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';

interface LogRow {
  seq: string;
  id: string;
  projectId: string;
  label: string;
  by: LogEntry['by'];
  machine: boolean;
  at: Date;
  touched: LogEntry['touched'];
}

const COLUMNS = `seq, id, project_id AS "projectId", label, by, machine, at, touched`;
/** Edits looked back through for who changed a facet last. */
const LOOK_BACK = 200;

/** All edits of all projects are numbered one after the other while this lock is held: a reader never misses one. */
const NUMBERING = 7_301_142;
/** The channel on which server processes hear of each other's edits. */
export const EDIT_CHANNEL = 'eskovan_edit';

const toEntry = ({ seq, at, ...rest }: LogRow): LogEntry => ({ ...rest, seq: Number(seq), at: at.toISOString() });

/** The append-only log of all that was done. */
@Injectable()
export class EditLog {
  constructor(@Inject(Sequelize) private readonly sequelize: Sequelize) {}

  /** An edit of this id, if it was applied before. */
  async find(
    id: string,
    transaction: Transaction,
  ): Promise<{ seq: number; projectId: string; changes: Change[] } | null> {
    const [found] = await this.select<{ seq: string; projectId: string; changes: Change[] }>(
      `SELECT seq, project_id AS "projectId", changes FROM edit WHERE id = :id`,
      { id },
      transaction,
    );
    return found ? { ...found, seq: Number(found.seq) } : null;
  }

  /** Keeps an edit and tells all server processes. Call it last: it holds up all other edits until the commit. */
  async append(edit: Edit, touched: LogEntry['touched'], transaction: Transaction): Promise<number> {
    const [{ seq } = { seq: '0' }] = await this.select<{ seq: string }>(
      `WITH lock AS MATERIALIZED (SELECT pg_advisory_xact_lock(${NUMBERING})),
       kept AS (
         INSERT INTO edit (seq, id, project_id, label, by, machine, version, changes, touched, at)
         SELECT nextval('edit_seq'), :id, :projectId, :label, :by::jsonb, :machine, :version, :changes::jsonb, :touched::jsonb,
           clock_timestamp() FROM lock
         RETURNING seq)
       SELECT seq, pg_notify('${EDIT_CHANNEL}', seq::text) FROM kept`,
      {
        id: edit.id,
        projectId: edit.projectId,
        label: edit.label,
        by: JSON.stringify(edit.by),
        machine: edit.machine,
        version: edit.version,
        changes: JSON.stringify(edit.changes),
        touched: JSON.stringify(touched),
      },
      transaction,
    );
    return Number(seq);
  }

  /** Edits after a number, oldest first. */
  async after(seq: number, { projectId, most }: { projectId?: string; most: number }): Promise<LogEntry[]> {
    const rows = await this.select<LogRow>(
      `SELECT ${COLUMNS} FROM edit WHERE seq > :seq ${projectId ? 'AND project_id = :projectId' : ''} ORDER BY seq LIMIT :most`,
      { seq, projectId: projectId ?? '', most },
    );
    return rows.map(toEntry);
  }

  /** Number of the newest edit, of a project or of all. */
  async newest(projectId?: string): Promise<number> {
    const [row] = await this.select<{ seq: string }>(
      `SELECT COALESCE(MAX(seq), 0) AS seq FROM edit ${projectId ? 'WHERE project_id = :projectId' : ''}`,
      { projectId: projectId ?? '' },
    );
    return Number(row!.seq);
  }

  /** The newest edits of a row, newest first; of one facet where it is named. */
  async ofRow(
    projectId: string,
    id: string,
    facet: Facet | null,
    most: number,
    transaction?: Transaction,
  ): Promise<LogEntry[]> {
    const rows = await this.changesOf(projectId, id, transaction);
    return rows
      .filter(({ changes }) => facet === null || changes.some((change) => change.id === id && touches(change, facet)))
      .slice(0, most)
      .map(({ changes: _, ...row }) => toEntry(row));
  }

  /** What some facets of a row were before each edit that people have changed them by, newest first. */
  async before(projectId: string, id: string, facets: readonly Facet[], most: number): Promise<BeforeEntry[]> {
    const rows = await this.changesOf(projectId, id);
    return rows
      .filter(({ machine }) => !machine)
      .map(({ changes, ...row }) => ({
        ...toEntry(row),
        before: changes.flatMap((change) =>
          change.op === 'set' && change.id === id && facets.some((facet) => sameFacet(facet, change.facet))
            ? [{ facet: change.facet, value: change.before }]
            : [],
        ),
      }))
      .filter(({ before }) => before.length > 0)
      .slice(0, most);
  }

  private changesOf(projectId: string, id: string, transaction?: Transaction) {
    return this.select<LogRow & { changes: Change[] }>(
      `SELECT ${COLUMNS}, changes FROM edit
       WHERE project_id = :projectId AND touched @> jsonb_build_array(jsonb_build_object('id', :id::text))
       ORDER BY seq DESC LIMIT ${LOOK_BACK}`,
      { projectId, id },
      transaction,
    );
  }

  /** Says with each clash who made it so, and by what. */
  async explain(projectId: string, clashes: Clash[], transaction: Transaction): Promise<Clash[]> {
    const explained: Clash[] = [];
    for (const clash of clashes) {
      const facet = clash.reason === 'deleted' ? null : clash.facet;
      const [last] = await this.ofRow(projectId, clash.id, facet, 1, transaction);
      explained.push({ ...clash, since: last ? { by: last.by.name, label: last.label, at: last.at } : null });
    }
    return explained;
  }

  private select<T extends object>(sql: string, replacements: Record<string, unknown>, transaction?: Transaction) {
    return this.sequelize.query<T>(sql, {
      type: QueryTypes.SELECT,
      replacements,
      ...(transaction ? { transaction } : {}),
    });
  }
}

const touches = (change: Change, facet: Facet) => change.op !== 'set' || sameFacet(change.facet, facet);

export type Touched = { kind: Kind; id: string; revision: number }[];
