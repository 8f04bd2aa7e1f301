export { matchWords } from './match.ts';
export { readLine } from './readLine.ts';
export type { WrittenLine } from './readLine.ts';
export { chosenItem, firstChoice, routineOfLines, takeOver } from './takeOver.ts';
export { wordByWord } from './wordByWord.ts';
export type { HeldLine } from './wordByWord.ts';
export type { Choice, Reading, TakenKind, TakenLine } from './takeOver.ts';
