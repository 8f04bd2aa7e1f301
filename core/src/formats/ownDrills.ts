import { pictureFaults } from '../figure/index.ts';
import { practiceReference } from '../reference/index.ts';
import type { Drill, OwnDrill, Reference } from '../reference/index.ts';
import { FaultList } from './faultList.ts';
import type { CaseFault, Path } from './faultList.ts';

/** The open format in which drills are exchanged: `{ format, drills: [...] }`. */
export const DRILL_FILE_FORMAT = 'yonder-ridge-drills/1';

/** A drill never asks for a swap that demands more than this above itself (reference, "Drills"). */
const MOST_DEMAND_ABOVE = 1;

function addReferenceFaults(list: FaultList, reference: Reference, drill: OwnDrill, at: Path): void {
  drill.serves.forEach(({ restriction }, i) =>
    list.known(reference.restrictions, 'restriction', restriction, [...at, 'serves', i, 'restriction']),
  );
  drill.contraindications.forEach((id, i) =>
    list.known(reference.precautions, 'precaution', id, [...at, 'contraindications', i]),
  );
  const demand = reference.drills.get(drill.id)?.demandIndex ?? 0;
  drill.equivalents.forEach((id, i) => {
    const here: Path = [...at, 'equivalents', i];
    if (!list.known(reference.drills, 'drill', id, here)) return;
    const other = reference.drills.get(id)?.demandIndex ?? 0;
    if (other > demand + MOST_DEMAND_ABOVE)
      list.add(here, `${id} demands ${other}, more than one point above ${demand}; name an easier one`);
  });
  for (const id of Object.keys(drill.patterns))
    list.known(reference.patterns, 'pattern', id, [...at, 'patterns', id]);
  const checks = new Map(reference.data.sessionChecks.map((check) => [check.id, check]));
  drill.entryCriteria.forEach((criterion, i) => {
    const here: Path = [...at, 'entryCriteria', i];
    if (criterion.test) list.known(reference.tests, 'test', criterion.test, [...here, 'test']);
    if (criterion.drill) list.known(reference.drills, 'drill', criterion.drill, [...here, 'drill']);
    if (criterion.check) list.known(checks, 'session check', criterion.check, [...here, 'check']);
  });
}

function addOwnFaults(list: FaultList, drill: OwnDrill, at: Path): void {
  if (drill.unilateral && drill.alternating)
    list.add([...at, 'alternating'], 'a drill is one-sided or alternating, not both');
  if (drill.contraction === 'ballistic' && drill.dose.measure === 'hold-seconds')
    list.add([...at, 'dose', 'measure'], 'a ballistic drill cannot be dosed in held seconds; count it');
  for (const { path, message } of drill.picture ? pictureFaults(drill.picture) : [])
    list.add([...at, 'picture', ...path], message);
  const restore = drill.timing.every((timing) => timing === 'after-activity');
  if (drill.category === 'raise' && restore)
    list.add([...at, 'timing'], 'raising temperature belongs before activity or stands alone');
}

function addLadderFaults(
  list: FaultList,
  bundled: Reference,
  reference: Reference,
  drill: OwnDrill,
  at: Path,
): void {
  const named = (other: Reference) => other.ladders.has(drill.ladder);
  if (!named(bundled) && drill.ladderName === undefined)
    list.add([...at, 'ladderName'], `ladder "${drill.ladder}" is new; give it a name`);
  if (drill.archived || !named(reference)) return;
  const ladder = reference.ladders.get(drill.ladder)?.drills ?? [];
  const place = ladder.indexOf(drill.id);
  const demandAt = (i: number): Drill | undefined => reference.drills.get(ladder[i] ?? '');
  const own = demandAt(place)?.demandIndex ?? 0;
  const before = demandAt(place - 1);
  const after = demandAt(place + 1);
  if (before && before.demandIndex > own)
    list.add(
      [...at, 'level'],
      `demand ${own} falls below ${before.name} (${before.demandIndex}) before it; put it earlier`,
    );
  if (after && after.demandIndex < own)
    list.add(
      [...at, 'level'],
      `demand ${own} is above ${after.name} (${after.demandIndex}) after it; put it later`,
    );
}

/** Adds what the reference contradicts in a practice's own drills: the same rules the shipped drills keep to. */
export function addOwnDrillFaults(
  list: FaultList,
  bundled: Reference,
  drills: readonly OwnDrill[],
  at: Path,
): void {
  const reference = practiceReference(bundled, { reference: [], tasks: [], drills: [...drills] });
  const seen = new Set<string>();
  drills.forEach((drill, i) => {
    const here: Path = [...at, i];
    if (bundled.drills.has(drill.id))
      list.add([...here, 'id'], `"${drill.id}" is a drill of the reference; choose another id`);
    if (seen.has(drill.id)) list.add([...here, 'id'], `"${drill.id}" is there twice; ids must differ`);
    seen.add(drill.id);
    addReferenceFaults(list, reference, drill, here);
    addOwnFaults(list, drill, here);
    addLadderFaults(list, bundled, reference, drill, here);
  });
}

/** Faults of a practice's own drills taken together, at paths that start at the list. Empty when they may be kept. */
export function ownDrillsFaults(bundled: Reference, drills: readonly OwnDrill[], at: Path = []): CaseFault[] {
  const list = new FaultList();
  addOwnDrillFaults(list, bundled, drills, at);
  return list.faults;
}

/** A copy of any drill to start an own one from: everything worked out or linked to others is left out. */
export function ownDrillOf(drill: Drill, id: string, name: string): OwnDrill {
  // What was softened for the shipped drill alone binds a copy in full.
  const softened = drill.precautionOverrides.map((o) => o.precaution);
  return {
    id,
    name,
    from: drill.id,
    ladder: drill.ladder,
    level: drill.level + 1,
    category: drill.category,
    regions: drill.regions,
    serves: drill.serves,
    contraction: drill.contraction,
    position: drill.position,
    loadClass: drill.loadClass,
    intensityClass: drill.intensityClass,
    loadRegions: drill.loadRegions,
    equipment: drill.equipment,
    equipmentAny: drill.equipmentAny,
    optionalEquipment: drill.optionalEquipment,
    space: drill.space,
    unilateral: drill.unilateral,
    alternating: drill.alternating,
    needsPartner: drill.needsPartner,
    dose: drill.dose,
    setupVariables: drill.setupVariables,
    setupSeconds: drill.setupSeconds,
    fatigue: drill.fatigue,
    raisesTemperature: drill.raisesTemperature,
    skill: drill.skill,
    contraindications: [...new Set([...drill.contraindications, ...softened])],
    entryCriteria: [],
    progressWhen: drill.progressWhen,
    equivalents: [],
    cues: drill.cues,
    faults: drill.faults,
    feelsLike: drill.feelsLike,
    athleteText: drill.athleteText,
    youthOk: drill.youthOk,
    youthNote: drill.youthNote,
    timing: drill.timing,
    patterns: drill.patterns ?? {},
    archived: false,
  };
}

/** The drills of a drill file as JSON text, readable by {@link readDrillFile} anywhere. */
export function writeDrillFile(drills: readonly OwnDrill[]): string {
  return `${JSON.stringify({ format: DRILL_FILE_FORMAT, drills }, null, 2)}\n`;
}

/** The document of a file in one of our formats, or the fault that keeps it from being one. */
export function readDocument(
  text: string,
  format: string,
): { document: Record<string, unknown> } | { fault: CaseFault } {
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch (error) {
    const detail = error instanceof SyntaxError ? error.message : 'unreadable';
    return { fault: { path: '$', message: `not JSON (${detail}); give one file as it was saved` } };
  }
  const entries = (document ?? {}) as Record<string, unknown>;
  if (entries['format'] !== format) return { fault: { path: '$.format', message: `must be "${format}"` } };
  return { document: entries };
}

/** The untyped entries of a drill file, or the fault that keeps it from being one. */
export function readDrillFile(text: string): { drills: unknown[] } | { fault: CaseFault } {
  const found = readDocument(text, DRILL_FILE_FORMAT);
  if ('fault' in found) return found;
  const { drills } = found.document;
  if (!Array.isArray(drills) || drills.length === 0)
    return { fault: { path: '$.drills', message: 'must be a list with at least one drill' } };
  return { drills };
}
