/** What a printing thread does: each takes plain data and gives the bytes of a PDF. */
export { createCard } from './card.ts';
export { createBooklet, createHandout } from './handout.ts';
