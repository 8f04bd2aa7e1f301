export { todoOf } from './todo.ts';
export type { Todo } from './schema.ts';
