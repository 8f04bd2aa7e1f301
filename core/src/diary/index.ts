export { daysSinceLast, reportsOf, running } from './reports.ts';
export type { PainLimits, Report } from './reports.ts';
export { painVerdict } from './painVerdict.ts';
export type { PainVerdict } from './painVerdict.ts';
export { endedOn, referralsOf } from './referrals.ts';
export type { Referral } from './referrals.ts';
