import type { Change, Kind, Row } from '@eskovan/core/document';

export const renaming = (row: Pick<Row, 'id' | 'name'>, after: string, kind: Kind = 'view'): Change => ({
  op: 'set',
  kind,
  id: row.id,
  facet: ['name'],
  before: row.name,
  after,
});
