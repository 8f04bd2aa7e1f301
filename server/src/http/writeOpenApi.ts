import { bundledReference } from '@yonder/core/reference/bundled';
import { Compute } from '../compute/compute.ts';
import { Printer } from '../features/printing/printer.ts';
import { openDatabase } from '../db/database.ts';
import { createDeps } from '../deps.ts';
import { allEndpoints } from '../endpoints.ts';
import { openApiDocument } from './openapi.ts';

/** Prints the API's description as it is served, without a database: for linters and generators. */
const deps = createDeps({
  database: openDatabase('postgres://nobody@127.0.0.1:1/none'),
  reference: bundledReference,
  compute: new Compute(1),
  printer: new Printer(),
  clock: () => new Date(),
});
process.stdout.write(JSON.stringify(openApiDocument(allEndpoints(deps)), null, 2), () => process.exit(0));
