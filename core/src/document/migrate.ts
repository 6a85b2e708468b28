import type { Edit } from './edit.ts';
import { DocumentError } from './errors.ts';
import { issueWords } from './issue-words.ts';
import { withUnknown } from './json.ts';
import { bodySchemas, DOCUMENT_VERSION, type BodyOf, type Kind } from './row.ts';

type Step = (kind: Kind, body: unknown) => unknown;

/** Version 1 kept what was computed from a model inside it; now that belongs to the site and is made again. */
function modelsWithoutDerived(kind: Kind, body: unknown): unknown {
  if (kind !== 'model' || typeof body !== 'object' || body === null) return body;
  const { fileName, source, bounds, triangles } = body as Record<string, unknown>;
  return { fileName, source, bounds, triangles, packed: null, declares: { metresPerUnit: 1, up: 'y' } };
}

/** Versions 3 to 22 know more of models, actions, paths, lenses, moves, paces, gazes, lights, views and limits, and of reels; what those before say of them stays as it is. */
const sameBody: Step = (_, body) => body;

/** `STEPS[n]` turns a body of version n + 1 into version n + 2. */
const STEPS: readonly Step[] = [
  modelsWithoutDerived,
  sameBody,
  sameBody,
  sameBody,
  sameBody,
  sameBody,
  sameBody,
  sameBody,
  sameBody,
  sameBody,
  sameBody,
  sameBody,
  sameBody,
  sameBody,
  sameBody,
  sameBody,
  sameBody,
  sameBody,
  sameBody,
  sameBody,
  sameBody,
];

/**
 * Brings an edit that an older page left behind to the current version. Steps so far changed what machines write in
 * models only; values of single facets stay as they are.
 */
export function migrateEdit(edit: Edit): Edit {
  const changes = edit.changes.map((change) =>
    change.op === 'make' ? { ...change, body: migrateBody(change.kind, edit.version, change.body) } : change,
  );
  return { ...edit, version: DOCUMENT_VERSION, changes: changes as Edit['changes'] };
}

/**
 * Brings a stored body to the current version and validates it.
 * @throws DocumentError `unknown-version` for a body written by a newer program, which is never overwritten;
 *   `invalid-body` when it does not fit its schema.
 */
export function migrateBody<K extends Kind>(kind: K, version: number, body: unknown): BodyOf<K> {
  if (version > DOCUMENT_VERSION || version < 1) {
    throw new DocumentError(
      'unknown-version',
      `This ${kind} was written in document version ${version}; this program knows versions 1 to ${DOCUMENT_VERSION}. Update Eskovan to open it.`,
    );
  }
  let current = body;
  for (let step = version - 1; step < DOCUMENT_VERSION - 1; step += 1) current = STEPS[step]!(kind, current);
  const parsed = bodySchemas[kind].safeParse(current, { error: issueWords });
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    throw new DocumentError('invalid-body', `${kind}.${issue.path.join('.')}: ${issue.message}`);
  }
  return withUnknown(current, parsed.data) as BodyOf<K>;
}
