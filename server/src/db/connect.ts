import { Sequelize } from 'sequelize';
import pg from 'pg';

// A calendar day is a day, not midnight somewhere: leave PostgreSQL's date as its ISO text.
pg.types.setTypeParser(pg.types.builtins.DATE, (value) => value);

/** Opens a pool on a PostgreSQL database. Nothing is logged: statements can hold health data. */
export function connect(databaseUrl: string): Sequelize {
  return new Sequelize(databaseUrl, {
    dialect: 'postgres',
    dialectModule: pg,
    logging: false,
    timezone: '+00:00',
    pool: { max: 10, idle: 10_000, acquire: 10_000 },
    define: { underscored: true, timestamps: false },
  });
}
