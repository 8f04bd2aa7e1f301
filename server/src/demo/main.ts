import { bundledReference } from '@yonder/core/reference/bundled';
import { Builds } from '../compute/builds.ts';
import { openDatabase } from '../db/database.ts';
import { createMigrator } from '../db/migrate.ts';
import { readConfig } from '../config.ts';
import { seedDemo } from './seed.ts';

const database = openDatabase(readConfig(process.env).databaseUrl);
await createMigrator(database.sequelize).up();
const today = () => new Date().toISOString().slice(0, 10);
await seedDemo({ database, reference: bundledReference, builds: new Builds(), today });
await database.sequelize.close();
