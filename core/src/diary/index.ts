export { daysSinceLast, reportsOf, running, wasLeftOut } from './reports.ts';
export type { PainLimits, Report } from './reports.ts';
export { painVerdict } from './painVerdict.ts';
export type { PainVerdict } from './painVerdict.ts';
export { DIARY } from './settings.ts';
export { endedOn, referralsOf } from './referrals.ts';
export type { Referral } from './referrals.ts';
