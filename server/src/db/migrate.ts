import { Logger as QueueLogger, runMigrations } from 'graphile-worker';
import pg from 'pg';
import { QueryTypes } from 'sequelize';
import type { Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { connect } from './connect.ts';
import type { Migration, Run } from './migration.ts';
import { exposure } from './migrations/2026-11-27-exposure.ts';
import { foundation } from './migrations/2026-11-25-foundation.ts';
import { library } from './migrations/2026-11-25-library.ts';
import { summaries } from './migrations/2026-11-25-summaries.ts';
import { wholeBody } from './migrations/2026-11-25-whole-body.ts';
import { oneDoor } from './migrations/2026-11-27-one-door.ts';
import { levelsSeen } from './migrations/2026-11-27-levels-seen.ts';
import { methods } from './migrations/2026-11-27-methods.ts';
import { occasions } from './migrations/2026-11-28-occasions.ts';
import { todaysCopies } from './migrations/2026-11-28-today.ts';
import { lightWeeks } from './migrations/2026-12-01-light-weeks.ts';
import { painState } from './migrations/2026-12-01-pain-state.ts';
import { frozenDrills } from './migrations/2026-12-02-frozen-drills.ts';
import { guardedAudit } from './migrations/2026-12-02-guarded-audit.ts';
import { signsRead } from './migrations/2026-12-01-signs-read.ts';
import { protocols } from './migrations/2026-11-28-protocols.ts';
import { ownTests } from './migrations/2026-11-27-own-tests.ts';
import { secondShape } from './migrations/2026-11-27-second-shape.ts';

const MIGRATIONS: readonly Migration[] = [
  foundation,
  wholeBody,
  summaries,
  library,
  secondShape,
  oneDoor,
  levelsSeen,
  exposure,
  ownTests,
  methods,
  occasions,
  todaysCopies,
  painState,
  protocols,
  lightWeeks,
  signsRead,
  guardedAudit,
  frozenDrills,
];

/** The migrations of this version on a database. `up()` brings it forward, `down({ to: 0 })` takes everything back. */
function createMigrator(sequelize: Sequelize): Umzug {
  const inTransaction = (step: Migration['up']) =>
    sequelize.transaction(async (transaction) => {
      const run: Run = async <Row extends object>(sql: string, values?: Record<string, unknown>) =>
        values === undefined && !/^\s*SELECT/i.test(sql)
          ? (await sequelize.query(sql, { transaction }), [])
          : ((await sequelize.query(sql, {
              transaction,
              replacements: values ?? {},
              type: QueryTypes.SELECT,
            })) as Row[]);
      if (typeof step === 'string') await run(step);
      else await step(run);
    });
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

/** Any number, the same for every process: who holds it migrates, the others wait and find it done. */
const LOCK = 4600_2027;
const silent = new QueueLogger(() => () => undefined);

/** Does something with the migrations of a database while no other process does. */
export async function withMigrator<T>(
  databaseUrl: string,
  work: (migrator: Umzug) => Promise<T>,
): Promise<T> {
  const holder = new pg.Client({ connectionString: databaseUrl });
  await holder.connect();
  const sequelize = connect(databaseUrl, { poolSize: 2 });
  try {
    await holder.query('SELECT pg_advisory_lock($1)', [LOCK]);
    return await work(createMigrator(sequelize));
  } finally {
    await sequelize.close();
    await holder.end(); // lets the lock go with it
  }
}

/** Brings a database, its job queue included, to this version. Safe to run from several processes at once. */
export function migrate(databaseUrl: string): Promise<void> {
  return withMigrator(databaseUrl, async (migrator) => {
    await migrator.up();
    await runMigrations({ connectionString: databaseUrl, logger: silent });
  });
}

/** Names of migrations that a database lacks; empty when it has this version. */
export function missingMigrations(databaseUrl: string): Promise<string[]> {
  return withMigrator(databaseUrl, async (migrator) => (await migrator.pending()).map((m) => m.name));
}
