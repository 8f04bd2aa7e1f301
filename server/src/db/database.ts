import type { Sequelize, Transaction } from 'sequelize';
import { connect } from './connect.ts';
import { defineModels } from './models.ts';
import type { Models } from './models.ts';

/** A connected database with its models. */
export interface Database {
  readonly sequelize: Sequelize;
  readonly models: Models;
  /** Runs work in one transaction: all of it is stored, or none. Who opens it commits it. */
  readonly inTransaction: <T>(work: (transaction: Transaction) => Promise<T>) => Promise<T>;
}

export function openDatabase(databaseUrl: string): Database {
  const sequelize = connect(databaseUrl);
  return {
    sequelize,
    models: defineModels(sequelize),
    inTransaction: (work) => sequelize.transaction(work),
  };
}
