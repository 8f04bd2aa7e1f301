import type { RoutineItem } from '@yonder/core/domain';
import { painLimits } from '@yonder/core/findings';
import { practiceReference } from '@yonder/core/reference';
import { precautionsOfDrill, safetyState } from '@yonder/core/safety';
import type { Deps } from '../../deps.ts';
import type { User } from '../../http/endpoint.ts';
import { loadCase } from '../athletes/cases.ts';
import { audit } from '../audit.ts';
import { createHandout } from './handout.ts';
import { findRoutine } from './service.ts';

/** The PDF handout of an issued version, with today's precautions and the school's pain limit. */
export async function printRoutine(deps: Deps, user: User, routineId: string): Promise<Buffer> {
  const routine = await findRoutine(deps, user, routineId);
  const loaded = await loadCase(deps.database, user.practiceId, routine.athleteId, deps.today());
  const practice = await deps.database.models.practices.findByPk(user.practiceId);
  const reference = practiceReference(deps.reference, loaded.case.overrides);
  const safety = safetyState(reference, loaded.case.athlete, deps.today());
  const items = routine.items as RoutineItem[];
  const handling = new Map(
    items.map((item) => {
      const drill = reference.drills.get(item.drill);
      const own = drill ? precautionsOfDrill(reference, drill, safety.precautions).handling : [];
      return [item.drill, own.map((h) => h.text)] as const;
    }),
  );
  await audit(deps.database, user, routine.athleteId, 'routine.print');
  return createHandout(reference, {
    athlete: loaded.name,
    practice: practice?.get({ plain: true }).name ?? '',
    number: routine.number,
    issuedOn: routine.issuedOn,
    issuedBy: routine.issuedBy,
    mode: routine.mode as 'prepare' | 'build' | 'restore',
    totalSeconds: routine.totalSeconds,
    items,
    stopAbove: painLimits(reference, loaded.case, safety.age).stop,
    precautions: safety.precautions.flatMap((p) => reference.precautions.get(p.id)?.athleteWording ?? []),
    handling,
  });
}
