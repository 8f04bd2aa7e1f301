export { oneLetterOff } from './oneLetterOff.ts';
export { asNamed, othersOf, stem } from './said.ts';
export { searchDrills } from './searchDrills.ts';
