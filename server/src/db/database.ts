import type { Sequelize, Transaction } from 'sequelize';
import { QueryTypes } from 'sequelize';
import { connect } from './connect.ts';
import type { ConnectOptions } from './connect.ts';
import { defineModels } from './models.ts';
import type { AnyModel } from './models.ts';
import { Rows } from './rows.ts';
import type { Scope } from './rows.ts';
import { TABLES } from './schema.ts';
import type { TableName } from './schema.ts';

/** Every table with its typed rows. */
export type Tables = { readonly [Name in TableName]: Rows<Name> };
/** Runs a statement with named values (`:name`) and gives its rows. */
export type Query = <Row extends object>(sql: string, values?: Record<string, unknown>) => Promise<Row[]>;

/** What can be done inside one transaction. */
export interface Connection {
  readonly tables: (scope: Omit<Scope, 'transaction'>) => Tables;
  readonly query: Query;
}

/**
 * A connected database. A connection is reachable only inside {@link Database.inTransaction}: all of it is stored, or
 * none, and nothing inside opens a second one.
 */
export interface Database {
  readonly inTransaction: <T>(work: (connection: Connection) => Promise<T>) => Promise<T>;
  readonly close: () => Promise<void>;
}

function tablesOf(models: Record<TableName, AnyModel>, scope: Scope): Tables {
  const names = Object.keys(TABLES) as TableName[];
  const made = new Map<string, unknown>();
  const tables = {};
  for (const name of names)
    Object.defineProperty(tables, name, {
      enumerable: true,
      get: () => {
        if (!made.has(name)) made.set(name, new Rows(name, models[name], scope));
        return made.get(name);
      },
    });
  return tables as Tables;
}

function queryIn(sequelize: Sequelize, transaction: Transaction): Query {
  return async <Row extends object>(sql: string, values: Record<string, unknown> = {}) =>
    (await sequelize.query(sql, { transaction, replacements: values, type: QueryTypes.SELECT })) as Row[];
}

/** Opens a pool of connections; nothing is sent until the first unit of work. */
export function openDatabase(databaseUrl: string, options: ConnectOptions = {}): Database {
  const sequelize = connect(databaseUrl, options);
  const models = defineModels(sequelize);
  return {
    inTransaction: (work) =>
      sequelize.transaction((transaction) =>
        work({
          tables: (scope) => tablesOf(models, { ...scope, transaction }),
          query: queryIn(sequelize, transaction),
        }),
      ),
    close: () => sequelize.close(),
  };
}
