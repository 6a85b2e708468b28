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

const WITH_FILES = ['project', 'model', 'action', 'move', 'view', 'take', 'link'] as const;

/** Files that the bodies of a table name and that are kept, as uses of `owner`. */
const usesIn = (table: string, used: string, owner: string) => `
  INSERT INTO file_use (sha256, used_by, owner, media_type)
  SELECT DISTINCT ON (found.sha256, ${owner}) found.sha256, '${used}', ${owner}, found.media_type
  FROM ${table}, LATERAL (
    SELECT value->>'sha256' AS sha256, COALESCE(value->>'mediaType', 'application/octet-stream') AS media_type
    FROM jsonb_path_query(body, 'strict $.** ? (exists (@.sha256))') AS value) found
  JOIN file ON file.sha256 = found.sha256`;

/** The log of what was done, which file is needed by what, and indexes on what is asked for inside bodies. */
const EDITS: readonly string[] = [
  `CREATE SEQUENCE edit_seq`,
  `CREATE TABLE edit (
    seq bigint PRIMARY KEY,
    id uuid NOT NULL UNIQUE,
    project_id uuid NOT NULL REFERENCES project (id),
    label varchar(200) NOT NULL,
    by jsonb NOT NULL,
    machine boolean NOT NULL,
    version integer NOT NULL,
    changes jsonb NOT NULL,
    touched jsonb NOT NULL,
    at timestamptz NOT NULL)`,
  `CREATE INDEX edit_of_project ON edit (project_id, seq)`,
  `CREATE INDEX edit_of_row ON edit USING gin (touched jsonb_path_ops)`,
  `CREATE FUNCTION edit_stays() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN RAISE EXCEPTION 'the log is only added to'; END $$`,
  `CREATE TRIGGER edit_stays BEFORE UPDATE OR DELETE ON edit FOR EACH ROW EXECUTE FUNCTION edit_stays()`,
  `CREATE TABLE file_use (
    sha256 char(64) NOT NULL REFERENCES file (sha256),
    used_by varchar(8) NOT NULL,
    owner varchar(80) NOT NULL,
    media_type varchar(100) NOT NULL,
    PRIMARY KEY (used_by, owner, sha256))`,
  `CREATE INDEX file_use_of_file ON file_use (sha256)`,
  ...WITH_FILES.map((kind) => usesIn(kind, 'row', 'id::text')),
  usesIn('site', 'site', `project_id::text || ' ' || key`),
  `CREATE INDEX view_cover ON view (project_id, "order", created)
    WHERE deleted IS NULL AND body->'thumbnail'->>'sha256' IS NOT NULL`,
  `CREATE TABLE site_lease (
    project_id uuid NOT NULL REFERENCES project (id),
    key varchar(40) NOT NULL,
    holder uuid NOT NULL,
    until timestamptz NOT NULL,
    PRIMARY KEY (project_id, key))`,
];

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
  {
    name: '004-edits',
    up: async ({ context }) => {
      await context.sequelize.transaction(async (transaction) => {
        for (const sql of EDITS) await context.sequelize.query(sql, { transaction });
      });
    },
  },
  {
    name: '005-lights',
    up: async ({ context }) => {
      await context.sequelize.transaction(async (transaction) => {
        const run = (sql: string) => context.sequelize.query(sql, { transaction });
        for (const sql of rowsOf('light')) await run(sql);
        // Sites in their lights, which were one with the sites: computed anew.
        await run(`CREATE TABLE lit (
          project_id uuid NOT NULL REFERENCES project (id),
          key varchar(40) NOT NULL,
          body jsonb NOT NULL,
          used timestamptz NOT NULL,
          PRIMARY KEY (project_id, key))`);
      });
    },
  },
  {
    name: '006-reels',
    up: async ({ context }) => {
      await context.sequelize.transaction(async (transaction) => {
        for (const sql of [...rowsOf('reel'), ...rowsOf('shot')]) await context.sequelize.query(sql, { transaction });
      });
    },
  },
];
