export { normalCdf } from './normal.ts';
export { startLevel, predictLevel, updateLevel } from './localLevel.ts';
export { estimateSide, RESTART_AFTER_WEEKS } from './estimateSide.ts';
export type { Estimate, Visit } from './estimateSide.ts';
export { realChange, MDC90_PER_SEM } from './realChange.ts';
export type { RealChange } from './realChange.ts';
export { rescreenDue, RESCREEN } from './rescreen.ts';
