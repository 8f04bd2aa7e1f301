import { Sequelize } from 'sequelize';
import pg from 'pg';

// A calendar day is a day, not midnight somewhere: leave PostgreSQL's date as its ISO text.
pg.types.setTypeParser(pg.types.builtins.DATE, (value) => value);

/** How many connections a process may hold, and who is told of each statement. */
export interface ConnectOptions {
  /** @default 10 */
  readonly poolSize?: number;
  /** Told of every statement's text, for counting them; never logged: statements can hold health data. */
  readonly onStatement?: (sql: string) => void;
}

/** Opens a pool on a PostgreSQL database. */
export function connect(databaseUrl: string, { poolSize = 10, onStatement }: ConnectOptions = {}): Sequelize {
  return new Sequelize(databaseUrl, {
    dialect: 'postgres',
    dialectModule: pg,
    logging: onStatement ?? false,
    timezone: '+00:00',
    pool: { max: poolSize, idle: 10_000, acquire: 20_000 },
    define: { underscored: true, timestamps: false },
  });
}
