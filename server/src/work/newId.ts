import { createHash, randomUUID } from 'node:crypto';

/** An id for a row that is addressed by something else than its id, so that the server makes it. */
export const newId = (): string => randomUUID();

/** The id of one of several rows that are made together: always the same for the same batch and name. */
export function idWithin(batch: string, name: string): string {
  const hex = createHash('sha256').update(`${batch}/${name}`).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}
