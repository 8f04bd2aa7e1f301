import { dayText } from '../domain/index.ts';
import type { Reference } from '../reference/index.ts';
import type { DayRule } from '../safety/index.ts';
import { nameOf } from './figures.ts';
import { withSide } from './labels.ts';

const HOLDS: Readonly<Record<DayRule['band'], string>> = {
  fine: 'all stays; its drills are watched and asked about afterwards',
  amber: 'nothing hard or fast on it, a gentle drill first, the least dose and two sets at most',
  above: 'it is left alone today; the rest of the body goes on. Have it looked at before it is loaded again',
};

/** One sentence for what holds today because a region hurts, and where that is known from. */
export function dayRuleText(reference: Reference, rule: DayRule): string {
  const { region, side, nrs, because, forbids, sharp, band } = rule;
  const place = withSide(nameOf(reference, region), side);
  const source =
    because.source === 'check-in'
      ? 'said before today’s session'
      : because.test === null
        ? `told ${dayText(because.since)}`
        : `${nameOf(reference, because.test).toLowerCase()}, ${dayText(because.since)}`;
  if (rule.lifted)
    return `${place} hurts ${nrs}/10 (${source}): the rule for it was lifted by ${rule.lifted.by} on ${dayText(rule.lifted.date)}: ${rule.lifted.reason}. Its drills are watched and asked about afterwards.`;
  const out = forbids.map((id) => nameOf(reference, id).toLowerCase());
  const end = sharp && band === 'amber' ? ', no stretch into it' : '';
  const also = out.length > 0 ? ` Holds as well: ${out.join(', ')}.` : '';
  const back =
    rule.restores.length > 0 ? ' One graded drill for the painful position is scheduled (method).' : '';
  return `${place} hurts ${nrs}/10 (${source}): ${HOLDS[band]}${end}.${also}${back}`;
}
