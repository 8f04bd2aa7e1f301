export { oneLetterOff } from './oneLetterOff.ts';
export { searchDrills } from './searchDrills.ts';
