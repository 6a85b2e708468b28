import { Inject, Injectable } from '@nestjs/common';
import {
  CHILD_KINDS,
  type CatchUp,
  type ChildKind,
  type Kind,
  type KindRow,
  type ProjectCard,
  type ProjectDocument,
  type Row,
  type Unreadable,
} from '@eskovan/core/document';
import { QueryTypes } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { notFound } from '../common/problem.ts';
import { EditLog } from '../edit/edit-log.ts';
import { readRows, toRow, type StoredRow } from '../row/row-reading.ts';
import { ROW_COLUMNS, RowService } from '../row/row.service.ts';
import { Kept, type KeptText } from './kept.ts';

/** Edits told row by row; after more the document is read anew. */
const MOST_EDITS = 500;
/** Documents held ready as text. */
const MOST_DOCUMENTS = 24;

/** All lists of a project and the number of its newest edit, in one statement: one snapshot. */
const DOCUMENT_SQL = [
  `SELECT 'seq' AS kind, NULL::uuid AS id, NULL::uuid AS "projectId", NULL AS name, COALESCE(MAX(seq), 0)::float8 AS "order",
     NULL::jsonb AS body, 0 AS version, 0 AS revision, NULL::timestamptz AS created, NULL::timestamptz AS updated,
     NULL::timestamptz AS deleted FROM edit WHERE project_id = :projectId`,
  ...(['project', ...CHILD_KINDS] as const).map(
    (kind) => `SELECT '${kind}' AS kind, ${ROW_COLUMNS} FROM ${kind} WHERE project_id = :projectId AND deleted IS NULL`,
  ),
].join(' UNION ALL ');

const CARDS_SQL = `
  SELECT p.*, cover.sha256 AS cover, ${CHILD_KINDS.map((kind) => `COALESCE(${kind}_count.n, 0)::int AS "${kind}"`).join(', ')}
  FROM (SELECT ${ROW_COLUMNS} FROM project WHERE deleted IS NULL) p
  ${CHILD_KINDS.map((kind) => `LEFT JOIN (SELECT project_id, count(*) AS n FROM ${kind} WHERE deleted IS NULL GROUP BY project_id) ${kind}_count ON ${kind}_count.project_id = p.id`).join('\n')}
  LEFT JOIN (
    SELECT DISTINCT ON (project_id) project_id, body->'thumbnail'->>'sha256' AS sha256 FROM view
    WHERE deleted IS NULL AND body->'thumbnail'->>'sha256' IS NOT NULL
    ORDER BY project_id, "order", created) cover ON cover.project_id = p.id
  ORDER BY p.updated DESC, p.id`;

type CardRow = StoredRow & { cover: string | null } & Record<ChildKind, number>;

/** Whole projects: the cards of all, everything of one, what has changed in one. */
@Injectable()
export class ProjectService {
  private readonly documents = new Kept(MOST_DOCUMENTS);
  private readonly allCards = new Kept(1);

  constructor(
    @Inject(RowService) private readonly rows: RowService,
    @Inject(Sequelize) private readonly sequelize: Sequelize,
    @Inject(EditLog) private readonly log: EditLog,
  ) {}

  /** Everything of one project, as JSON text. Nothing but an edit changes it: between two it is made once. */
  async document(projectId: string): Promise<KeptText> {
    const seq = await this.log.newest(projectId);
    return this.documents.get(projectId, seq, async () => {
      const document = await this.readDocument(projectId);
      return { version: document.seq, text: JSON.stringify(document) };
    });
  }

  /** The Projects screen, newest first, as JSON text. */
  async cards(): Promise<KeptText> {
    const seq = await this.log.newest();
    return this.allCards.get('cards', seq, async () => {
      const stored = await this.select<CardRow>(CARDS_SQL, {});
      const cards = stored.flatMap((row): ProjectCard[] => {
        const [project] = readRows('project', [row]).rows;
        if (!project) return [];
        const counts = Object.fromEntries(CHILD_KINDS.map((kind) => [kind, row[kind]])) as ProjectCard['counts'];
        return [{ project, cover: row.cover, counts }];
      });
      return { version: seq, text: JSON.stringify(cards) };
    });
  }

  /** What has changed since an edit: the rows as they are now, deleted ones included. */
  async changes(projectId: string, after: number): Promise<CatchUp> {
    await this.rows.some('project', projectId, [projectId]).then(([project]) => {
      if (!project) throw notFound('project');
    });
    const edits = await this.log.after(after, { projectId, most: MOST_EDITS + 1 });
    const seq = edits.at(-1)?.seq ?? after;
    if (edits.length > MOST_EDITS) return { seq: await this.log.newest(projectId), whole: true, rows: [], edits: [] };
    const ids = new Map<Kind, Set<string>>();
    for (const { touched } of edits)
      for (const { kind, id } of touched) ids.set(kind, (ids.get(kind) ?? new Set()).add(id));
    const rows: KindRow[] = [];
    for (const [kind, wanted] of ids)
      for (const row of await this.rows.some(kind, projectId, [...wanted])) rows.push({ kind, row });
    return { seq, whole: false, rows, edits };
  }

  private async readDocument(projectId: string): Promise<ProjectDocument> {
    const stored = await this.select<StoredRow & { kind: Kind | 'seq' }>(DOCUMENT_SQL, { projectId });
    const byKind = new Map<Kind | 'seq', StoredRow[]>();
    for (const { kind, ...row } of stored) {
      const list = byKind.get(kind);
      if (list) list.push(row);
      else byKind.set(kind, [row]);
    }
    const owner = byKind.get('project')?.[0];
    if (!owner) throw notFound('project');
    const lists: Partial<Record<Kind, Row[]>> = {};
    const unreadable: Unreadable[] = [];
    for (const kind of CHILD_KINDS) {
      const read = readRows(kind, (byKind.get(kind) ?? []).sort(inOrder));
      lists[kind] = read.rows;
      unreadable.push(...read.unreadable);
    }
    const seq = byKind.get('seq')![0]!.order;
    return { project: toRow('project', owner), seq, unreadable, ...lists } as ProjectDocument;
  }

  private select<T extends object>(sql: string, replacements: Record<string, unknown>): Promise<T[]> {
    return this.sequelize.query<T>(sql, { type: QueryTypes.SELECT, replacements });
  }
}

const inOrder = (a: StoredRow, b: StoredRow) =>
  a.order - b.order || a.created.getTime() - b.created.getTime() || (a.id < b.id ? -1 : 1);
