import type { QueryInterface } from 'sequelize';

export interface Migration {
  name: string;
  up: (context: { context: QueryInterface }) => Promise<void>;
}

const CHILDREN = ['model', 'move', 'view', 'take', 'link'] as const;

const rowsOf = (kind: string): readonly string[] => [
  `CREATE TABLE ${kind} (${columns('project')})`,
  `CREATE INDEX ${kind}_of_project ON ${kind} (project_id) WHERE deleted IS NULL`,
];

const columns = (reference: string) => `
  id uuid PRIMARY KEY,
  project_id uuid NOT NULL REFERENCES ${reference} (id),
  name varchar(120) NOT NULL,
  "order" double precision NOT NULL,
  body jsonb NOT NULL,
  version integer NOT NULL,
  revision integer NOT NULL,
  created timestamptz NOT NULL,
  updated timestamptz NOT NULL,
  deleted timestamptz`;

/** In order; never edited once released, only added to. */
export const MIGRATIONS: readonly Migration[] = [
  {
    name: '001-rows-and-files',
    up: async ({ context }) => {
      await context.sequelize.transaction(async (transaction) => {
        const run = (sql: string) => context.sequelize.query(sql, { transaction });
        await run(`CREATE TABLE project (${columns('project')})`);
        for (const sql of CHILDREN.flatMap(rowsOf)) await run(sql);
        // A take's number is given once, even to takes deleted since.
        await run(`CREATE UNIQUE INDEX take_number ON take (project_id, ((body->>'number')::int))`);
        await run(`CREATE UNIQUE INDEX link_token ON link ((body->>'token'))`);
        await run(`CREATE TABLE file (
          sha256 char(64) PRIMARY KEY,
          size bigint NOT NULL,
          media_type varchar(100) NOT NULL,
          created timestamptz NOT NULL)`);
      });
    },
  },
  {
    name: '002-sites',
    up: async ({ context }) => {
      // Computed, so it has no revision and no history: it can be thrown away and made again.
      await context.sequelize.query(`CREATE TABLE site (
        project_id uuid NOT NULL REFERENCES project (id),
        key varchar(40) NOT NULL,
        body jsonb NOT NULL,
        used timestamptz NOT NULL,
        PRIMARY KEY (project_id, key))`);
    },
  },
  {
    name: '003-actions',
    up: async ({ context }) => {
      await context.sequelize.transaction(async (transaction) => {
        for (const sql of rowsOf('action')) await context.sequelize.query(sql, { transaction });
      });
    },
  },
];
