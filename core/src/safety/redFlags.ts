import type { Athlete, IsoDay, Region } from '../domain/index.ts';
import type { RedFlag, Reference } from '../reference/index.ts';

/** One blocked region ("all" when everything stops) and the stop-and-refer sign that blocks it. */
export interface Block {
  readonly region: Region | 'all';
  readonly redFlag: string;
  readonly level: RedFlag['level'];
  readonly action: string;
}

const STOP_ALL = 'Stop all exercise. Get medical help (doctor or emergency department) today.';

/** A positive answer that no named clinician's dated clearance has lifted. */
export function isOpen(answer: Athlete['redFlags'][number], today: IsoDay): boolean {
  return answer.answer && !(answer.clearance && answer.clearance.date <= today);
}

/** What open stop-and-refer answers block. Only a named clinician's dated clearance lifts one. */
export function openBlocks(reference: Reference, athlete: Athlete, today: IsoDay): Block[] {
  const blocks: Block[] = [];
  for (const answer of athlete.redFlags) {
    const flag = reference.redFlags.get(answer.id);
    if (!flag || !isOpen(answer, today)) continue;
    const row = (region: Block['region']): Block => ({
      region,
      redFlag: flag.id,
      level: flag.level,
      action: flag.level === 'U' && region === 'all' ? STOP_ALL : flag.action,
    });
    if (flag.blocks === 'all') {
      blocks.push(row('all'));
      continue;
    }
    const regions = new Set<Region>(flag.regions);
    if (answer.region) regions.add(answer.region);
    // A sign that asks for a region but got none is read at its strictest: everything is blocked.
    if (regions.size === 0) blocks.push(row('all'));
    for (const region of regions) blocks.push(row(region));
  }
  return blocks;
}

/** True when an open bone-stress sign also acts as the precaution `bone-stress-suspected` (rulings, "Safety"). */
export function boneStressOpen(athlete: Athlete, today: IsoDay): boolean {
  return athlete.redFlags.some((answer) => answer.id.startsWith('gen-bone-stress') && isOpen(answer, today));
}

/** True while an open sign of bone or of too little energy closes impact and hard work everywhere. */
export function impactClosed(reference: Reference, athlete: Athlete, today: IsoDay): boolean {
  return athlete.redFlags.some(
    (answer) => reference.redFlags.get(answer.id)?.closesImpact === true && isOpen(answer, today),
  );
}

/** True when an emergency sign is open: no tests, no routine, and no findings either. */
export function emergencyOpen(blocks: readonly Block[]): boolean {
  return blocks.some((block) => block.level === 'E');
}

/** Is a region closed to every drill and test? Level P does not close it: there the ticked items stay open. */
export function isBlocked(blocks: readonly Block[], region: Region): boolean {
  return blocks.some((block) => block.level !== 'P' && (block.region === 'all' || block.region === region));
}
