import type { TestProject } from 'vitest/node';
import { throwawayProduct } from '../scripts/lib/throwaway.mjs';

declare module 'vitest' {
  export interface ProvidedContext {
    environment: Record<string, string>;
  }
}

/** A throw-away cluster holding the demo data, laid once; each test file works on its own copy (driver/product.ts). */
export default async function setup(project: TestProject) {
  const { environment, end } = await throwawayProduct('e2e');
  project.provide('environment', environment);
  return end;
}
