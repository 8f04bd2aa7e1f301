import type { Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { foundation } from './migrations/2026-11-25-foundation.ts';
import { library } from './migrations/2026-11-25-library.ts';
import { summaries } from './migrations/2026-11-25-summaries.ts';
import { wholeBody } from './migrations/2026-11-25-whole-body.ts';

/** One step of the schema, in SQL, forwards and back. Each runs in a transaction of its own. */
export interface Migration {
  readonly name: string;
  readonly up: string;
  readonly down: string;
}

const MIGRATIONS: readonly Migration[] = [foundation, wholeBody, summaries, library];

/** The migrations of this version on a database. `up()` brings it forward, `down({ to: 0 })` takes everything back. */
export function createMigrator(sequelize: Sequelize): Umzug {
  const inTransaction = (sql: string) =>
    sequelize.transaction((transaction) => sequelize.query(sql, { transaction }));
  return new Umzug({
    migrations: MIGRATIONS.map(({ name, up, down }) => ({
      name,
      up: () => inTransaction(up),
      down: () => inTransaction(down),
    })),
    storage: new SequelizeStorage({ sequelize, tableName: 'schema_migrations' }),
    logger: undefined,
  });
}
