import type { Figures, ImportedDrills } from '@yonder/core/contracts';
import { sameJson } from '@yonder/core/domain';
import { jsonPath, ownDrillsFaults } from '@yonder/core/formats';
import type { CaseFault } from '@yonder/core/formats';
import { ownDrillSchema } from '@yonder/core/schemas';
import type { OwnDrill } from '@yonder/core/reference';
import { refuse } from '../../http/problem.ts';
import { newId } from '../../work/newId.ts';
import { drillOf } from '../../work/practice.ts';
import type { Unit } from '../../work/unit.ts';
import { holdPractice, readFigures } from '../figures/service.ts';
import { slugOf } from '../figures/slug.ts';
import { ownDrillRow } from './drillRow.ts';

/** The practice's own drills in the open format. */
export async function ownDrills({ rows }: Unit): Promise<OwnDrill[]> {
  return (await rows.own_drills.all({}, { sort: ['slug'] })).map(drillOf);
}

/** Faults of one drill among all own ones, at paths below `$.drill`. */
function faultsOfOne(unit: Unit, all: readonly OwnDrill[], id: string): CaseFault[] {
  const index = all.findIndex((drill) => drill.id === id);
  return ownDrillsFaults(unit.reference, all)
    .filter((fault) => fault.path.startsWith(`$[${index}]`))
    .map((fault) => ({ ...fault, path: fault.path.replace(`$[${index}]`, '$.drill') }));
}

/** Whoever saves a drill that is looser than what it comes from signs for it; a signature that stands already stays. */
function signed({ actor, today }: Unit, drill: OwnDrill, before: OwnDrill | undefined): OwnDrill {
  const { looser } = drill;
  if (!looser) return drill;
  const stands = before?.looser && before.looser.reason === looser.reason ? before.looser : null;
  return { ...drill, looser: stands ?? { reason: looser.reason, by: actor.name, date: today } };
}

const saved = ({ actor, today }: Unit) => ({ savedBy: actor.name, savedOn: today });

/** Adds a drill of the practice's own, checked like a shipped one; its id is made from its name. */
export async function addDrill(
  unit: Unit,
  { id, drill: given }: { id: string; drill: OwnDrill },
): Promise<Figures> {
  await holdPractice(unit);
  const known = await ownDrills(unit);
  const taken = new Set([...unit.reference.drills.keys(), ...known.map((d) => d.id)]);
  const drill = signed(unit, { ...given, id: slugOf(given.name, taken, 'drill') }, undefined);
  refuse(faultsOfOne(unit, [...known, drill], drill.id));
  await unit.rows.own_drills.insert({ id, slug: drill.id, drill, ...saved(unit) });
  return readFigures(unit);
}

/** A drill was ticked as it was: once it is another in anything but being archived, its ticks are taken back and named. */
async function takeTicksBack(
  { rows, query, practiceId }: Unit,
  before: OwnDrill | undefined,
  now: OwnDrill,
): Promise<void> {
  const content = ({ archived: _archived, ...rest }: OwnDrill) => rest;
  if (!before || sameJson(content(before), content(now))) return;
  const ticked = await query<{ id: string }>(
    'SELECT id FROM protocols WHERE practice_id = :practiceId AND drills @> CAST(:drill AS jsonb)',
    { practiceId, drill: JSON.stringify([now.id]) },
  );
  for (const { id } of ticked) {
    const { drills, changed, version } = await rows.protocols.need({ id }, 'Protocol', { lock: true });
    const left = drills.filter((drill) => drill !== now.id);
    await rows.protocols.update(
      { id },
      { drills: left, changed: [...new Set([...changed, now.id])], version: version + 1 },
    );
  }
}

/** Changes, archives or brings back a drill on the version it was read at. */
export async function changeDrill(
  unit: Unit,
  rowId: string,
  { drill: given, version }: { drill: OwnDrill; version: number },
): Promise<Figures> {
  await holdPractice(unit);
  const before = await unit.rows.own_drills.need({ id: rowId }, 'Drill');
  const { slug } = before;
  const drill = signed(unit, { ...given, id: slug }, before.drill);
  const others = (await ownDrills(unit)).map((d) => (d.id === slug ? drill : d));
  await unit.rows.own_drills.change({ id: rowId }, version, { drill, ...saved(unit) }, ownDrillRow);
  refuse(faultsOfOne(unit, others, slug));
  await takeTicksBack(unit, drillOf(before), drill);
  return readFigures(unit);
}

function parseDrills(entries: readonly unknown[]): { drills: OwnDrill[]; faults: CaseFault[] } {
  const faults: CaseFault[] = [];
  const drills = entries.flatMap((entry, i): OwnDrill[] => {
    const parsed = ownDrillSchema.safeParse(entry);
    if (parsed.success) return [parsed.data];
    for (const issue of parsed.error.issues)
      faults.push({ path: jsonPath(['drills', i, ...issue.path]), message: issue.message });
    return [];
  });
  return { drills, faults };
}

interface DrillFile {
  readonly drills: readonly unknown[];
  readonly check: boolean;
}

/** What an import of drills would do, or did. */
export async function lookAtDrills(unit: Unit, input: DrillFile): Promise<ImportedDrills> {
  const { drills, faults } = parseDrills(input.drills);
  if (faults.length > 0) return { faults, added: [], replaced: [] };
  const known = await ownDrills(unit);
  const ids = new Set(drills.map((drill) => drill.id));
  const kept = known.filter((drill) => !ids.has(drill.id));
  const against = ownDrillsFaults(unit.reference, [...drills, ...kept])
    .filter(({ path }) => Number(/^\$\[(\d+)\]/.exec(path)?.[1]) < drills.length)
    .map((fault) => ({ ...fault, path: fault.path.replace('$[', '$.drills[') }));
  const isKnown = (drill: OwnDrill) => known.some((other) => other.id === drill.id);
  return {
    faults: against,
    added: drills.filter((d) => !isKnown(d)).map((d) => d.name),
    replaced: drills.filter(isKnown).map((d) => d.name),
  };
}

/**
 * Takes the drills of a file over, all or none: an own drill of the same id is replaced, everything else is new. With
 * `check` nothing is stored and the answer says what would happen.
 */
export async function importDrills(unit: Unit, input: DrillFile): Promise<ImportedDrills> {
  if (!input.check) await holdPractice(unit);
  const answer = await lookAtDrills(unit, input);
  if (input.check) return answer;
  refuse(answer.faults);
  for (const given of parseDrills(input.drills).drills) {
    const row = await unit.rows.own_drills.one({ slug: given.id });
    const drill = signed(unit, given, row?.drill);
    await takeTicksBack(unit, row ? drillOf(row) : undefined, drill);
    if (row) await unit.rows.own_drills.change({ id: row.id }, row.version, { drill, ...saved(unit) });
    else await unit.rows.own_drills.insert({ id: newId(), slug: drill.id, drill, ...saved(unit) });
  }
  return answer;
}
