import type { Figures, ImportedDrills, OwnDrillRow } from '@yonder/core/contracts';
import { jsonPath, ownDrillsFaults } from '@yonder/core/formats';
import type { CaseFault } from '@yonder/core/formats';
import { ownDrillSchema } from '@yonder/core/schemas';
import type { OwnDrill } from '@yonder/core/reference';
import type { Transaction } from 'sequelize';
import type { OwnDrillRecord } from '../../db/models.ts';
import type { Deps } from '../../deps.ts';
import type { User } from '../../http/endpoint.ts';
import { ApiProblem } from '../../http/problem.ts';
import { updateVersioned } from '../../http/versioned.ts';
import { audit } from '../audit.ts';
import { readFigures, slugOf } from '../figures/service.ts';
import { ownDrillRecords } from '../figures/practice.ts';

/** A stored drill as the core reads it; columns win over what stands in the document. */
export function ownDrillRow(record: OwnDrillRecord): OwnDrillRow {
  return {
    rowId: record.id,
    version: record.version,
    savedBy: record.savedBy,
    savedOn: record.savedOn,
    drill: { ...(record.drill as OwnDrill), id: record.slug },
  };
}

async function ownDrills(deps: Deps, user: User, transaction: Transaction): Promise<OwnDrill[]> {
  const rows = await ownDrillRecords(deps.database, user.practiceId, transaction);
  return rows.map((row) => ownDrillRow(row).drill);
}

/** Locks the practice, so that two drills saved at once never share an id or a place. */
async function lockPractice(deps: Deps, user: User, transaction: Transaction): Promise<void> {
  await deps.database.models.practices.findByPk(user.practiceId, {
    transaction,
    lock: transaction.LOCK.UPDATE,
  });
}

function refuse(faults: readonly CaseFault[]): void {
  if (faults.length > 0) throw new ApiProblem('invalid-request', { errors: [...faults] });
}

/** Faults of one drill among all own ones, at paths below `$.drill`. */
function faultsOfOne(deps: Deps, all: readonly OwnDrill[], id: string): CaseFault[] {
  const index = all.findIndex((drill) => drill.id === id);
  return ownDrillsFaults(deps.reference, all)
    .filter((fault) => fault.path.startsWith(`$[${index}]`))
    .map((fault) => ({ ...fault, path: fault.path.replace(`$[${index}]`, '$.drill') }));
}

/** Adds a drill of the practice's own, or changes one on the version it was read at; checked like a shipped one. */
export async function saveDrill(
  deps: Deps,
  user: User,
  input: { drill: OwnDrill; version: number | null },
  rowId?: string,
): Promise<Figures> {
  const { database } = deps;
  return database.inTransaction(async (transaction) => {
    await lockPractice(deps, user, transaction);
    const known = await ownDrills(deps, user, transaction);
    const saved = { savedBy: user.name, savedOn: deps.today() };
    if (rowId === undefined) {
      const taken = new Set([...deps.reference.drills.keys(), ...known.map((d) => d.id)]);
      const drill = { ...input.drill, id: slugOf(input.drill.name, taken, 'drill') };
      refuse(faultsOfOne(deps, [...known, drill], drill.id));
      await database.models.ownDrills.create(
        { practiceId: user.practiceId, slug: drill.id, drill, ...saved },
        { transaction },
      );
    } else {
      const where = { id: rowId, practiceId: user.practiceId };
      const row = await updateVersioned(
        database.models.ownDrills,
        where,
        input.version ?? 0,
        { drill: input.drill, ...saved },
        ownDrillRow,
        transaction,
      );
      const drill = { ...input.drill, id: row.slug };
      refuse(
        faultsOfOne(
          deps,
          known.map((d) => (d.id === row.slug ? drill : d)),
          row.slug,
        ),
      );
    }
    await audit(database, user, null, 'drill.save', transaction);
    return readFigures(deps, user, transaction);
  });
}

interface Parsed {
  readonly drills: readonly OwnDrill[];
  readonly faults: readonly CaseFault[];
}

function parseDrills(entries: readonly unknown[]): Parsed {
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

/**
 * Takes the drills of a file over, all or none: an own drill of the same id is replaced, everything else is new. With
 * `check` nothing is stored and the answer says what would happen.
 */
export async function importDrills(
  deps: Deps,
  user: User,
  input: { drills: readonly unknown[]; check: boolean },
): Promise<ImportedDrills> {
  const { drills, faults } = parseDrills(input.drills);
  if (faults.length > 0 && !input.check) refuse(faults);
  if (faults.length > 0) return { faults: [...faults], added: [], replaced: [] };
  const { database } = deps;
  return database.inTransaction(async (transaction) => {
    await lockPractice(deps, user, transaction);
    const known = await ownDrills(deps, user, transaction);
    const ids = new Set(drills.map((drill) => drill.id));
    const kept = known.filter((drill) => !ids.has(drill.id));
    const against = ownDrillsFaults(deps.reference, [...drills, ...kept])
      .filter(({ path }) => Number(/^\$\[(\d+)\]/.exec(path)?.[1]) < drills.length)
      .map((fault) => ({ ...fault, path: fault.path.replace('$[', '$.drills[') }));
    const isKnown = (drill: OwnDrill) => known.some((other) => other.id === drill.id);
    const answer = {
      faults: against,
      added: drills.filter((d) => !isKnown(d)).map((d) => d.name),
      replaced: drills.filter(isKnown).map((d) => d.name),
    };
    if (input.check) return answer;
    refuse(against);
    const saved = { savedBy: user.name, savedOn: deps.today() };
    for (const drill of drills) {
      const where = { practiceId: user.practiceId, slug: drill.id };
      const row = await database.models.ownDrills.findOne({ where, transaction });
      if (row)
        await row.update({ drill, ...saved, version: (row.get('version') as number) + 1 }, { transaction });
      else await database.models.ownDrills.create({ ...where, drill, ...saved }, { transaction });
    }
    await audit(database, user, null, 'drill.import', transaction);
    return answer;
  });
}

/** The practice's own drills in the open format. */
export async function exportedDrills(deps: Deps, user: User): Promise<OwnDrill[]> {
  const rows = await ownDrillRecords(deps.database, user.practiceId);
  return rows.map((row) => ownDrillRow(row).drill);
}
