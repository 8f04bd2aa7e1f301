import { randomBytes } from 'node:crypto';
import pg from 'pg';

const DEMO = 'rowan@northfell.example';
/** Ids inside documents (items, batches): they are known within their row alone and stay as they are. */
const STAYS = new Set(['item_id', 'batch_id', 'decided_batch']);
/** Work that is waiting is of the practice it was asked for. */
const LEFT_OUT = new Set(['jobs', 'receipts']);

interface Column {
  readonly table: string;
  readonly name: string;
  readonly type: string;
  readonly counted: boolean;
}

/** Every row of the demo academy once more, under ids of its own that follow from the old ones and `salt`. */
async function copyAcademy(client: pg.Client, salt: string): Promise<string> {
  const { rows: columns } = await client.query<Column>(
    `SELECT c.table_name AS "table", c.column_name AS name, c.udt_name AS type,
            (c.is_identity = 'YES' OR c.column_default LIKE 'nextval%') AS counted
     FROM information_schema.columns c JOIN information_schema.tables t USING (table_schema, table_name)
     WHERE c.table_schema = 'public' AND t.table_type = 'BASE TABLE' AND c.is_generated = 'NEVER'`,
  );
  // A hash with the marks of a random UUID.
  const moved = (name: string) =>
    `overlay(overlay(md5("${name}"::text || '${salt}') placing '4' from 13) placing '8' from 17)::uuid`;
  const value = ({ table, name, type }: Column) => {
    if (table === 'clinicians' && name === 'email') return `replace(email, '@', '@${salt}.')`;
    return type === 'uuid' && !STAYS.has(name) ? moved(name) : `"${name}"`;
  };
  await client.query('BEGIN');
  // Rows come in the order of their tables' names; what they refer to is all there at the end.
  await client.query(`SET LOCAL session_replication_role = 'replica'`);
  for (const table of new Set(columns.map((column) => column.table))) {
    const all = columns.filter((column) => column.table === table);
    const key = table === 'practices' ? 'id' : 'practice_id';
    if (LEFT_OUT.has(table) || !all.some(({ name }) => name === key)) continue;
    const own = all.filter(({ counted }) => !counted);
    await client.query(
      `INSERT INTO "${table}" (${own.map(({ name }) => `"${name}"`).join(', ')})
       SELECT ${own.map(value).join(', ')} FROM "${table}"
       WHERE "${key}" = (SELECT practice_id FROM clinicians WHERE email = '${DEMO}')`,
    );
  }
  await client.query('COMMIT');
  const { rows } = await client.query<{ practice: string }>(
    'SELECT practice_id AS practice FROM clinicians WHERE email = $1',
    [DEMO.replace('@', `@${salt}.`)],
  );
  return rows[0]?.practice ?? '';
}

/** The academy as one test file has it: its own account and rows, among those of others in one database. */
export interface Practice {
  readonly account: { readonly email: string; readonly password: string };
  /** Rows of this practice alone: what is really stored, not what a screen says. */
  readonly stored: <Row extends pg.QueryResultRow>(sql: string, values?: unknown[]) => Promise<Row[]>;
  /** Ends every session that somebody of this practice has. */
  readonly endSessions: () => Promise<void>;
  readonly leave: () => Promise<void>;
}

/** Makes a copy of the demo academy for one test file; every table is seen through it alone. */
export async function ownPractice(databaseUrl: string): Promise<Practice> {
  const client = new pg.Client({ connectionString: databaseUrl });
  client.on('error', () => undefined); // the database may be stopped on purpose
  await client.connect();
  const salt = `t${randomBytes(5).toString('hex')}`;
  const id = await copyAcademy(client, salt);
  const { rows } = await client.query<{ table: string }>(
    `SELECT table_name AS "table" FROM information_schema.columns
     WHERE table_schema = 'public' AND column_name = 'practice_id'`,
  );
  for (const { table } of rows)
    await client.query(
      `CREATE TEMP VIEW "${table}" AS SELECT * FROM public."${table}" WHERE practice_id = '${id}'`,
    );
  await client.query(`CREATE TEMP VIEW practices AS SELECT * FROM public.practices WHERE id = '${id}'`);
  return {
    account: { email: DEMO.replace('@', `@${salt}.`), password: 'ridge-walk' },
    stored: async <Row extends pg.QueryResultRow>(sql: string, values: unknown[] = []) =>
      (await client.query<Row>(sql, values)).rows,
    endSessions: async () => {
      await client.query(
        `DELETE FROM login_sessions WHERE sess->>'clinicianId' IN (SELECT id::text FROM clinicians)`,
      );
    },
    leave: () => client.end(),
  };
}
