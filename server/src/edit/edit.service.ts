import { Inject, Injectable } from '@nestjs/common';
import {
  applyEdit,
  bodySchemas,
  canonicalJson,
  DOCUMENT_VERSION,
  editFault,
  nameSchema,
  withUnknown,
  type BodyOf,
  type Edit,
  type EditReply,
  type Kind,
  type KindRow,
  type Row,
} from '@eskovan/core/document';
import { QueryTypes, UniqueConstraintError, type Transaction } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { gone, notFound, ProblemException } from '../common/problem.ts';
import { ROW_MODELS, type RowModel } from '../database/rows.ts';
import { FileUses } from '../file/file-uses.ts';
import { toRow } from '../row/row-reading.ts';
import { EditLog, type Touched } from './edit-log.ts';

/**
 * The one way in for everything that is saved. An edit is applied as a whole, once, in one transaction; it is refused
 * only where a facet is no longer what the edit says it was.
 */
@Injectable()
export class EditService {
  constructor(
    @Inject(Sequelize) private readonly sequelize: Sequelize,
    @Inject(EditLog) private readonly log: EditLog,
    @Inject(FileUses) private readonly uses: FileUses,
  ) {}

  /**
   * @throws ProblemException 409 with what the edit does not fit any more and the rows as they are; 409 `old-page` for
   *   an edit of another document version; 410 in a deleted project; 422 for what can never be applied
   */
  async apply(edit: Edit): Promise<EditReply> {
    if (edit.version !== DOCUMENT_VERSION)
      throw new ProblemException(409, {
        code: edit.version < DOCUMENT_VERSION ? 'old-page' : 'newer-page',
        message:
          edit.version < DOCUMENT_VERSION
            ? 'This page is older than the server. Reload it; what you made is kept and saved then.'
            : 'This page is newer than the server. What you made is kept until the server is updated.',
      });
    const fault = editFault(edit);
    if (fault) throw new ProblemException(422, { code: 'invalid', ...fault });
    try {
      return await this.sequelize.transaction((transaction) => this.within(edit, transaction));
    } catch (error) {
      if (error instanceof UniqueConstraintError) throw taken(error);
      throw error;
    }
  }

  private async within(edit: Edit, transaction: Transaction): Promise<EditReply> {
    // Edits of one project come one after the other, also those of a project that does not exist yet.
    await this.sequelize.query('SELECT pg_advisory_xact_lock(hashtextextended(:projectId, 11))', {
      replacements: { projectId: edit.projectId },
      transaction,
    });
    const rows = await this.load(edit, transaction);
    const known = await this.log.find(edit.id, transaction);
    if (known) {
      if (known.projectId !== edit.projectId || !sameJson(known.changes, edit.changes))
        throw new ProblemException(409, { code: 'id-taken', message: 'Another edit has this id already.' });
      return { seq: known.seq, rows: named(edit, rows) };
    }
    const project = rows.get(edit.projectId);
    if (!project && !edit.changes.some(({ op, id }) => op === 'make' && id === edit.projectId))
      throw notFound('project');
    const restores = edit.changes.some(({ op, id }) => op === 'restore' && id === edit.projectId);
    if (project?.row.deleted && !restores) throw gone('project', edit.projectId);
    const { rows: changed, clashes } = applyEdit(edit, (kind, id) => ofKind(rows, kind, id), new Date().toISOString());
    if (clashes.length > 0) {
      const explained = await this.log.explain(edit.projectId, clashes, transaction);
      throw new ProblemException(409, {
        code: 'conflict',
        message: 'Somebody else has changed this in the meantime.',
        clashes: explained,
        rows: named(edit, rows).filter(({ row }) => row.projectId === edit.projectId),
      });
    }
    const kept: KindRow[] = [];
    for (const { kind, row } of changed) {
      const whole = await this.complete(kind, row, transaction);
      await this.write(kind, whole, rows.has(row.id), transaction);
      kept.push({ kind, row: whole });
    }
    const touched: Touched = kept.map(({ kind, row }) => ({ kind, id: row.id, revision: row.revision }));
    await this.uses.ofRows(kept, transaction);
    await this.uses.ofEdit(edit, transaction);
    const seq = await this.log.append(edit, touched, transaction);
    return { seq, rows: kept.length > 0 ? kept : named(edit, rows) };
  }

  /** Rows that an edit names, and its project, deleted or not, whatever project they belong to. */
  private async load(edit: Edit, transaction: Transaction): Promise<Map<string, KindRow>> {
    const wanted = new Map<Kind, Set<string>>([['project', new Set([edit.projectId])]]);
    for (const { kind, id } of [...edit.changes, ...edit.given])
      wanted.set(kind, (wanted.get(kind) ?? new Set()).add(id));
    const found = new Map<string, KindRow>();
    for (const [kind, ids] of wanted)
      for (const row of await ROW_MODELS[kind].findAll<RowModel>({ where: { id: [...ids] }, transaction }))
        found.set(row.id, { kind, row: toRow(kind, row) });
    return found;
  }

  /** The row as it is kept: validated, defaults filled in, unknown members left, given what the server gives. */
  private async complete(kind: Kind, row: Row, transaction: Transaction): Promise<Row> {
    const name = nameSchema.safeParse(row.name);
    if (!name.success) throw invalid(kind, ['name'], name.error.issues[0]!.message);
    const body = bodySchemas[kind].safeParse(row.body);
    if (!body.success) {
      const [issue] = body.error.issues;
      throw invalid(kind, ['body', ...issue!.path.map(String)], issue!.message);
    }
    let whole = withUnknown(row.body, body.data) as Row['body'];
    if (kind === 'take' && row.revision === 0)
      whole = await this.numbered(row.projectId, whole as BodyOf<'take'>, transaction);
    return { ...row, name: name.data, body: whole, version: DOCUMENT_VERSION, revision: row.revision + 1 };
  }

  private async write(kind: Kind, row: Row, exists: boolean, transaction: Transaction): Promise<void> {
    const values = {
      ...row,
      created: new Date(row.created),
      updated: new Date(row.updated),
      deleted: row.deleted ? new Date(row.deleted) : null,
    };
    if (exists) {
      const { id, projectId: _, created: __, ...changes } = values;
      await (ROW_MODELS[kind] as typeof RowModel & { new (): RowModel }).update<RowModel>(changes, {
        where: { id },
        transaction,
      });
    } else await ROW_MODELS[kind].create<RowModel>(values, { transaction });
  }

  private async numbered(projectId: string, body: BodyOf<'take'>, transaction: Transaction): Promise<BodyOf<'take'>> {
    if (body.number !== 0) return body;
    const [found] = await this.sequelize.query<{ next: number }>(
      `SELECT COALESCE(MAX((body->>'number')::int), 0) + 1 AS next FROM take WHERE project_id = :projectId`,
      { type: QueryTypes.SELECT, replacements: { projectId }, transaction },
    );
    return { ...body, number: found!.next };
  }
}

const ofKind = (rows: Map<string, KindRow>, kind: Kind, id: string) => {
  const found = rows.get(id);
  return found?.kind === kind ? found.row : undefined;
};

/** The rows that an edit changes, as they are now. */
const named = (edit: Edit, rows: Map<string, KindRow>): KindRow[] =>
  [...new Set(edit.changes.map(({ id }) => id))].flatMap((id) => rows.get(id) ?? []);

const sameJson = (a: unknown, b: unknown) => canonicalJson(a) === canonicalJson(b);

function invalid(kind: Kind, path: string[], message: string): ProblemException {
  const field = path.join('.');
  return new ProblemException(422, { code: 'invalid', message: `${kind}: ${field}: ${message}`, field });
}

/** What a unique index refused, in words. */
function taken(error: UniqueConstraintError): ProblemException {
  const constraint = (error.original as { constraint?: string } | undefined)?.constraint ?? '';
  const words: Record<string, [string, string]> = {
    take_number: ['number-taken', 'Another take has this number already. Leave the number to the server.'],
    link_token: ['token-taken', 'Another link has this token already. Make a new one.'],
  };
  const [code, message] = words[constraint] ?? ['id-taken', 'Something else has this id already. Make a new one.'];
  return new ProblemException(409, { code, message });
}
