import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Root of the project, whatever the working directory. */
export const root = resolve(dirname(fileURLToPath(import.meta.url)), '../..');
