export { weekOf } from './week.ts';
