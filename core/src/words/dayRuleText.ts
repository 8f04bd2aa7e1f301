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

/** Where a pain is known from. */
function sourceText(reference: Reference, { source, test, drill, since }: DayRule['because']): string {
  const about = test ?? drill;
  const name = about === null ? '' : `${nameOf(reference, about).toLowerCase()}, `;
  switch (source) {
    case 'check-in':
      return 'said before today’s session';
    case 'told':
      return `told ${dayText(since)}`;
    case 'morning':
      return `the morning after ${name}${dayText(since)}`;
    default:
      return `${name}${dayText(since)}`;
  }
}

/** One sentence for what holds today because a region hurts, and where that is known from. */
export function dayRuleText(reference: Reference, rule: DayRule): string {
  const { region, side, nrs, because, forbids, sharp, band } = rule;
  const place = withSide(nameOf(reference, region), side);
  const source = sourceText(reference, because);
  if (rule.referred.length > 0) {
    const drills = rule.referred.map((id) => nameOf(reference, id).toLowerCase()).join(', ');
    return `${place} is to be looked at: ${nrs}/10 (${source}), after which the diary said to stop and refer for ${drills}. Nothing loads it until a named person ends this.`;
  }
  if (rule.lifted)
    return `${place} hurts ${nrs}/10 (${source}): the rule for it was lifted by ${rule.lifted.by} on ${dayText(rule.lifted.date)}: ${rule.lifted.reason}. Its drills are watched and asked about afterwards.`;
  const out = forbids.map((id) => nameOf(reference, id).toLowerCase());
  const end = sharp && band === 'amber' ? ', no stretch into it' : '';
  const also = out.length > 0 ? ` Holds as well: ${out.join(', ')}.` : '';
  const back =
    rule.restores.length > 0 ? ' One graded drill for the painful position is scheduled (method).' : '';
  return `${place} hurts ${nrs}/10${rule.atRest ? ' at rest' : ''} (${source}): ${HOLDS[band]}${end}.${also}${back}`;
}
