// A worker thread does not inherit the TypeScript loader of its parent: it registers its own, then loads the thread.
import { register } from 'tsx/esm/api';

register();
export const { createBooklet, createCard, createHandout } = await import('./printThread.ts');
