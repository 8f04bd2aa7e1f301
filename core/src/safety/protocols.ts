import { monthsBefore, REGIONS } from '../domain/index.ts';
import type { Athlete, IsoDay, Region, Side } from '../domain/index.ts';
import type { Reference } from '../reference/index.ts';
import { isOpen } from './redFlags.ts';

/** Months after an operation during which the treating clinician's protocol leads (editable). */
export const PROTOCOL_MONTHS = 12;

/** A region and side in which only ticked drills and tests are shown (level P). */
export interface ProtocolGate {
  readonly region: Region;
  readonly side: Side;
  readonly since: IsoDay;
  readonly drills: ReadonlySet<string>;
  readonly tests: ReadonlySet<string>;
}

/** Do two sides concern each other? Central concerns both. */
export function covers(side: Side, other: Side): boolean {
  return side === other || side === 'central' || other === 'central';
}

interface Opened {
  readonly region: Region;
  readonly side: Side;
  readonly since: IsoDay;
}

function openedByOperation(athlete: Athlete, today: IsoDay): Opened[] {
  const from = monthsBefore(today, PROTOCOL_MONTHS);
  return athlete.injuries
    .filter((injury) => injury.operated && injury.date >= from && injury.date <= today)
    .map(({ region, side, date }) => ({ region, side, since: date }));
}

/** A level-P sign without a region is read at its strictest: every region. */
function openedBySign(reference: Reference, athlete: Athlete, today: IsoDay): Opened[] {
  return athlete.redFlags
    .filter((answer) => reference.redFlags.get(answer.id)?.level === 'P' && isOpen(answer, today))
    .flatMap((answer) =>
      (answer.region ? [answer.region] : REGIONS).map((region) => ({
        region,
        side: answer.side ?? ('central' as const),
        since: today,
      })),
    );
}

/**
 * Open level-P gates: operations within the last 12 months and open level-P signs, with what the named clinician
 * ticked for that region and side.
 */
export function protocolGates(reference: Reference, athlete: Athlete, today: IsoDay): ProtocolGate[] {
  return [...openedByOperation(athlete, today), ...openedBySign(reference, athlete, today)].map((opened) => {
    const ticked = athlete.protocols.filter((p) => p.region === opened.region && covers(p.side, opened.side));
    return {
      region: opened.region,
      side: opened.side,
      since: opened.since,
      drills: new Set(ticked.flatMap((p) => p.drills)),
      tests: new Set(ticked.flatMap((p) => p.tests)),
    };
  });
}

/** May this test of a region be shown for this side? */
export function testAllowed(
  gates: readonly ProtocolGate[],
  test: { id: string; region: Region },
  side: Side,
): boolean {
  return gates.every((g) => g.region !== test.region || !covers(g.side, side) || g.tests.has(test.id));
}

/**
 * The sides of a drill that a protocol leaves open. A drill that touches the gated region and is not ticked loses the
 * gated side; a drill that cannot be done for one side alone is lost altogether.
 */
export function sidesLeftOpen(
  gates: readonly ProtocolGate[],
  drill: { id: string; unilateral: boolean },
  touches: ReadonlySet<Region>,
): { left: boolean; right: boolean } {
  const open = { left: true, right: true };
  for (const gate of gates) {
    if (!touches.has(gate.region) || gate.drills.has(drill.id)) continue;
    if (!drill.unilateral || gate.side === 'central') return { left: false, right: false };
    if (gate.side === 'left') open.left = false;
    else open.right = false;
  }
  return open;
}
