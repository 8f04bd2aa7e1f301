import type { TestProject } from 'vitest/node';
import { throwawayCluster } from '../../../scripts/lib/throwaway.mjs';
import { migrate } from '../db/migrate.ts';
import { addTestPractices } from './practices.ts';

declare module 'vitest' {
  export interface ProvidedContext {
    databaseUrl: string;
    databaseLog: string;
  }
}

/** One throw-away cluster; its database is migrated once and is the template of every test file's own. */
export default async function setup(project: TestProject) {
  const { url, logFile, end } = await throwawayCluster('test');
  await migrate(url);
  await addTestPractices(url);
  project.provide('databaseUrl', url);
  project.provide('databaseLog', logFile);
  return end;
}
