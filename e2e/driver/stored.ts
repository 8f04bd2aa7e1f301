import pg from 'pg';
import { product } from './product.ts';

/** Rows of the server's own database: what is really stored, not what a screen says. */
export async function stored<Row extends pg.QueryResultRow>(
  sql: string,
  values: unknown[] = [],
): Promise<Row[]> {
  const client = new pg.Client({ connectionString: product.environment.DATABASE_URL });
  await client.connect();
  try {
    return (await client.query<Row>(sql, values)).rows;
  } finally {
    await client.end();
  }
}
