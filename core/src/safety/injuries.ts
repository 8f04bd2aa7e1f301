import type { Athlete, Region, Side } from '../domain/index.ts';
import type { Reference, Restriction } from '../reference/index.ts';
import { covers } from './protocols.ts';

type Injury = Athlete['injuries'][number];

/** Parts that the words of an injury name; none where they name nothing known. */
function partsOf(reference: Reference, { what }: Injury): Reference['data']['injuredParts'] {
  if (!what) return [];
  const said = ` ${what.toLowerCase().replace(/[^a-z]+/g, ' ')} `;
  return reference.data.injuredParts.filter(({ words }) => words.some((word) => said.includes(` ${word}`)));
}

/** Was this region hurt: where the injury is filed, or where the part that its words name runs? */
export function involves(reference: Reference, injury: Injury, region: Region): boolean {
  return (
    injury.region === region || partsOf(reference, injury).some(({ regions }) => regions.includes(region))
  );
}

/** Does an injury bear on a restriction: by the part that was hurt where its words name one, else by its region? */
export function bearsOn(reference: Reference, injury: Injury, restriction: Restriction): boolean {
  const parts = partsOf(reference, injury);
  return parts.length > 0
    ? parts.some(({ restrictions }) => restrictions.includes(restriction.id))
    : injury.region === restriction.region;
}

/** The last injury of a region and side up to a day, as far as one is on record. */
export function lastInjury(
  reference: Reference,
  athlete: Athlete,
  region: Region,
  side: Side,
  today: string,
): Injury | null {
  return athlete.injuries
    .filter((one) => one.date <= today && covers(one.side, side) && involves(reference, one, region))
    .reduce<Injury | null>((last, one) => (last && last.date >= one.date ? last : one), null);
}
