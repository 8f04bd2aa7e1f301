export { searchDrills } from './searchDrills.ts';
