import { bundledReference } from '@yonder/core/reference/bundled';
import pg from 'pg';
import { Compute } from '../compute/compute.ts';
import { Printer } from '../features/printing/printer.ts';
import { readConfig } from '../config.ts';
import { openDatabase } from '../db/database.ts';
import { createDeps } from '../deps.ts';
import { runJobsOnce } from '../jobs/run.ts';
import { seedDemo } from './seed.ts';

const { databaseUrl } = readConfig(process.env);
const database = openDatabase(databaseUrl);
const compute = new Compute(1);
const printer = new Printer();
const deps = createDeps({ database, reference: bundledReference, compute, printer, clock: () => new Date() });
await seedDemo(deps);
const pool = new pg.Pool({ connectionString: databaseUrl, max: 2 });
await runJobsOnce(deps, pool); // the first look at the list finds its lines ready
await pool.end();
await compute.close();
await printer.close();
await database.close();
