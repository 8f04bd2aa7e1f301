import { v4 } from 'uuid';

/** An id for something that is made here; works without https as well. */
export const newId = (): string => v4();
