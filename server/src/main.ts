import { bundledReference } from '@yonder/core/reference/bundled';
import { pino } from 'pino';
import { createApp } from './app.ts';
import { Compute } from './compute/compute.ts';
import { readConfig } from './config.ts';
import { openDatabase } from './db/database.ts';
import { missingMigrations } from './db/migrate.ts';
import { createDeps } from './deps.ts';
import { attachStandIns } from './features/devices/standIns.ts';
import { Printer } from './features/printing/printer.ts';
import { startJobs } from './jobs/run.ts';

const config = readConfig(process.env);
const logger = pino({ level: config.logLevel });
const missing = await missingMigrations(config.databaseUrl);
if (missing.length > 0) {
  logger.fatal({ missing }, 'the database is of an older version; run the migrate command first');
  process.exit(1);
}
const database = openDatabase(config.databaseUrl, { poolSize: config.poolSize });
const compute = new Compute(config.threads);
const printer = new Printer();
const clock = () => new Date();
const deps = createDeps({ database, reference: bundledReference, compute, printer, clock });
const app = createApp(deps, config, logger);
const stopJobs = config.jobs ? await startJobs(deps, app.pool) : async () => undefined;

const server = app.express.listen(config.port, config.host, () => {
  const address = server.address();
  const port = typeof address === 'object' && address ? address.port : config.port;
  logger.info({ host: config.host, port }, 'listening');
  // Tells a parent process (the start script, a test) that requests are welcome.
  process.send?.({ listening: port });
});
const detachStandIns = attachStandIns(server, app.signedIn);
server.on('error', (error) => {
  logger.error({ kind: error.message }, 'cannot listen');
  process.exit(1);
});

const GRACE_MS = 10_000;
let stopping = false;

/** Answers what is under way, then closes; a second signal or ten seconds end it at once. */
async function stop(signal: string): Promise<void> {
  if (stopping) process.exit(1);
  stopping = true;
  logger.info({ signal }, 'stopping');
  setTimeout(() => process.exit(1), GRACE_MS).unref();
  detachStandIns();
  server.closeIdleConnections();
  await new Promise((resolve) => server.close(resolve));
  await stopJobs();
  await compute.close();
  await printer.close();
  await app.close();
  await database.close();
  process.exit(0);
}
process.on('SIGTERM', () => void stop('SIGTERM'));
process.on('SIGINT', () => void stop('SIGINT'));
process.on('disconnect', () => void stop('parent gone'));
