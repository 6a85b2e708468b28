import type { Sequelize } from 'sequelize-typescript';
import { SequelizeStorage, Umzug } from 'umzug';
import { MIGRATIONS } from './migrations.ts';

/** Any number that nothing else locks by. */
const MIGRATING = 7_301_141;

/**
 * Brings the database to the newest shape; does nothing when it is there. Server processes that start together take
 * turns.
 */
export async function migrate(sequelize: Sequelize): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    await sequelize.query(`SELECT pg_advisory_xact_lock(${MIGRATING})`, { transaction });
    await bringUp(sequelize);
  });
}

async function bringUp(sequelize: Sequelize): Promise<void> {
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, up }) => ({ name, up })),
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize, tableName: 'migration' }),
    logger: undefined,
  });
  await umzug.up();
}
