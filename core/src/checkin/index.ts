export { todaysCopy } from './adapt.ts';
export type { TodayChange, TodaysCopy } from './adapt.ts';
