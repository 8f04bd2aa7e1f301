import { monthsBefore, REGIONS } from '../domain/index.ts';
import type { Athlete, IsoDay, Region, Side } from '../domain/index.ts';
import { kneelsOn, loadOn, onFeet } from '../reference/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import { isOpen } from './redFlags.ts';

/** Months after an operation during which the treating clinician's protocol leads (editable). */
export const PROTOCOL_MONTHS = 12;

/** A region and side in which only ticked drills and tests are shown (level P). */
export interface ProtocolGate {
  readonly region: Region;
  readonly side: Side;
  readonly since: IsoDay;
  /** By an operation, not by a sign alone. */
  readonly operated: boolean;
  readonly drills: ReadonlySet<string>;
  readonly tests: ReadonlySet<string>;
}

/** Do two sides concern each other? Central concerns both. */
export function covers(side: Side, other: Side): boolean {
  return side === other || side === 'central' || other === 'central';
}

type Opened = Pick<ProtocolGate, 'region' | 'side' | 'since' | 'operated'>;

function openedByOperation(athlete: Athlete, today: IsoDay): Opened[] {
  const from = monthsBefore(today, PROTOCOL_MONTHS);
  return athlete.injuries
    .filter((injury) => injury.operated && injury.date >= from && injury.date <= today)
    .map(({ region, side, date }) => ({ region, side, since: date, operated: true }));
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
        operated: false,
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
      ...opened,
      drills: new Set(ticked.flatMap((p) => p.drills)),
      tests: new Set(ticked.flatMap((p) => p.tests)),
    };
  });
}

/** Regions that carry load together: what goes through one of a limb goes through the operated one as well. */
const LIMBS: readonly (readonly Region[])[] = [
  ['ankle-foot', 'knee', 'hip-groin'],
  ['shoulder', 'elbow', 'wrist-hand'],
];
/** From this share on a region of the limb is loaded. */
const LIMB_LOAD = 0.3;

function loadsLimb({ region, operated }: ProtocolGate, drill: Drill): boolean {
  if (!operated || drill.loadClass === 'unloaded') return false;
  const limb = LIMBS.find((regions) => regions.includes(region)) ?? [region];
  return limb.some((one) => loadOn(drill, one) >= LIMB_LOAD);
}

/** Does a drill use the operated leg whichever side it is done on: by standing on it, or with one knee or the other down? */
function usesOther(gate: ProtocolGate, drill: Drill): boolean {
  const leg = LIMBS[0]?.includes(gate.region) ?? false;
  return kneelsOn(drill, gate.region) || (leg && gate.operated && onFeet(drill) && loadsLimb(gate, drill));
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
 * The sides of a drill that a protocol leaves open. A drill that touches the gated region, or loads the limb that was
 * operated, and is not ticked loses the gated side; a drill that cannot be done for one side alone is lost altogether.
 */
export function sidesLeftOpen(
  gates: readonly ProtocolGate[],
  drill: Drill,
  touches: ReadonlySet<Region>,
): { left: boolean; right: boolean } {
  const open = { left: true, right: true };
  for (const gate of gates) {
    if (gate.drills.has(drill.id) || !(touches.has(gate.region) || loadsLimb(gate, drill))) continue;
    if (!drill.unilateral || gate.side === 'central' || usesOther(gate, drill))
      return { left: false, right: false };
    if (gate.side === 'left') open.left = false;
    else open.right = false;
  }
  return open;
}
