/** Runs statements inside a migration's transaction; several at once when no values are given. */
export type Run = <Row extends object>(sql: string, values?: Record<string, unknown>) => Promise<Row[]>;

/** One step of the schema, forwards and back, in SQL or as a function. Each runs in a transaction of its own. */
export interface Migration {
  readonly name: string;
  readonly up: string | ((run: Run) => Promise<void>);
  readonly down: string | ((run: Run) => Promise<void>);
}
