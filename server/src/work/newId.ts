import { randomUUID } from 'node:crypto';

/** An id for a row that is addressed by something else than its id, so that the server makes it. */
export const newId = (): string => randomUUID();
