import { withSchools } from '@yonder/core/assess';
import { precautionsOfDrill } from '@yonder/core/safety';
import { nameOf, reasonText, withSide } from '@yonder/core/words';
import type { Deps } from '../../deps.ts';
import { Sent } from '../../http/endpoint.ts';
import type { Unit } from '../../work/unit.ts';
import { assessRecord, loadRecord } from '../athletes/record.ts';
import { passDoor } from './door.ts';
import { createHandout } from './handout.ts';
import { needRoutine } from './versions.ts';

/** The PDF handout of an issued version, with today's precautions and the school's pain limit. */
export async function printRoutine(deps: Deps, unit: Unit, routineId: string): Promise<Sent> {
  const routine = await needRoutine(unit, routineId);
  const record = await loadRecord(unit, routine.athleteId, unit.today);
  const { schools } = routine.request;
  await passDoor(unit, record, routine.items, unit.today, { schools });
  const assessed = await assessRecord(deps, unit, record);
  const { reference, safety, painLimits } = withSchools(assessed, schools);
  const { name: practice } = await unit.practice();
  const { items, number, issuedOn, issuedBy, mode, totalSeconds, overrides, reasons } = routine;
  const handling = new Map(
    items.map((item) => {
      const drill = reference.drills.get(item.drill);
      const own = drill ? precautionsOfDrill(reference, drill, safety.precautions).handling : [];
      return [item.drill, own.map((h) => h.text)] as const;
    }),
  );
  const precautions = safety.precautions.flatMap(
    (p) => reference.precautions.get(p.id)?.athleteWording ?? [],
  );
  return new Sent(async (response) => {
    const pdf = await createHandout(reference, {
      athlete: record.athlete.name,
      practice,
      number,
      issuedOn,
      issuedBy,
      mode,
      totalSeconds,
      items,
      stopAbove: painLimits.stop,
      precautions,
      handling,
      serves: new Map(
        reasons.map(({ item, serves }) => [
          item,
          [...serves]
            .sort((a, b) => b.match - a.match)
            .slice(0, 2)
            .map((one) => withSide(nameOf(reference, one.restriction).toLowerCase(), one.side))
            .join('; '),
        ]),
      ),
      overrides: overrides.map(
        ({ rule, why, by }) => `${reasonText(reference, rule)} All the same: ${why} (${by}).`,
      ),
    });
    response.type('application/pdf').set('Content-Disposition', 'inline; filename="routine.pdf"').send(pdf);
  });
}
