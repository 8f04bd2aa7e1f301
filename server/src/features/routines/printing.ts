import { withSchools } from '@yonder/core/assess';
import type { Assessment } from '@yonder/core/assess';
import type { Occasion } from '@yonder/core/domain';
import { WEEKDAYS } from '@yonder/core/domain';
import { precautionsOfDrill } from '@yonder/core/safety';
import {
  lineAmount,
  duration,
  lineName,
  nameOf,
  OCCASION_LABEL,
  reasonText,
  withSide,
} from '@yonder/core/words';
import { stopAbove } from '@yonder/core/takeover';
import ical, { ICalEventRepeatingFreq, ICalWeekday } from 'ical-generator';
import type { RowOf } from '../../db/schema.ts';
import type { Deps } from '../../deps.ts';
import { Sent } from '../../http/endpoint.ts';
import { ApiProblem, refuse } from '../../http/problem.ts';
import { referenceAsIssued } from '../../work/practice.ts';
import type { Unit } from '../../work/unit.ts';
import { assessRecord, loadRecord } from '../athletes/record.ts';
import type { LoadedRecord } from '../athletes/record.ts';
import { passDoor } from './door.ts';
import { printedDrills } from '../printing/input.ts';
import type { HandoutInput } from '../printing/input.ts';
import { needRoutine } from './versions.ts';

type Routine = RowOf<'routines'>;

function frequencyOf(rows: readonly RowOf<'occasions'>[], occasion: Occasion) {
  const own = rows.find((row) => row.occasion === occasion);
  return { days: own?.days ?? [], timesPerDay: own?.timesPerDay ?? 1 };
}

/** What every sheet of an athlete rests on, read once. */
interface Printed {
  readonly record: LoadedRecord;
  readonly assessed: Assessment;
  readonly occasions: readonly RowOf<'occasions'>[];
}

async function printed(deps: Deps, unit: Unit, athleteId: string): Promise<Printed> {
  const record = await loadRecord(unit, athleteId, unit.today);
  const assessed = await assessRecord(deps, unit, record);
  return { record, assessed, occasions: await unit.rows.occasions.all({ athleteId }) };
}

/** What is printed of a version, with today's precautions and the school's pain limit; refused where today forbids a drill. */
async function handoutOf(
  unit: Unit,
  { record, assessed, occasions }: Printed,
  routine: Routine,
  at: (index: number) => string,
): Promise<HandoutInput> {
  const { schools } = routine.request;
  await passDoor(unit, record, routine.items, unit.today, { schools, at });
  const { safety, painLimits } = withSchools(assessed, schools);
  const settings = await unit.practice();
  const reference = referenceAsIssued(settings, routine.ownDrills);
  const { items, sections, number, issuedOn, issuedBy, mode, occasion, totalSeconds, overrides, reasons } =
    routine;
  const handling = new Map(
    items.map((item) => {
      const drill = reference.drills.get(item.drill);
      const own = drill ? precautionsOfDrill(reference, drill, safety.precautions).handling : [];
      return [item.drill, own.map((h) => h.text)] as const;
    }),
  );
  return {
    athlete: record.athlete.name,
    practice: settings.name,
    drills: printedDrills(reference, items),
    occasion,
    ...frequencyOf(occasions, occasion),
    number,
    issuedOn,
    issuedBy,
    mode,
    totalSeconds,
    sections,
    items,
    stopAbove: stopAbove(painLimits.stop, items),
    precautions: safety.precautions.flatMap((p) => reference.precautions.get(p.id)?.athleteWording ?? []),
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
  };
}

function sendPdf(name: string, make: () => Promise<Buffer>): Sent {
  return new Sent(async (response) => {
    const pdf = await make();
    response.type('application/pdf').set('Content-Disposition', `inline; filename="${name}.pdf"`).send(pdf);
  });
}

/** The PDF handout of an issued version, or its card for the pocket. */
export async function printRoutine(
  deps: Deps,
  unit: Unit,
  routineId: string,
  as: 'handout' | 'card',
): Promise<Sent> {
  const routine = await needRoutine(unit, routineId);
  const own = await printed(deps, unit, routine.athleteId);
  const input = await handoutOf(unit, own, routine, (index) => `$.items[${index}]`);
  return as === 'card'
    ? sendPdf('card', () => deps.printer.card(input))
    : sendPdf('routine', () => deps.printer.handout(input));
}

/** Every routine in force as one booklet; refused as a whole where today forbids a drill of one of them. */
export async function printBooklet(deps: Deps, unit: Unit, athleteId: string): Promise<Sent> {
  const own = await printed(deps, unit, athleteId);
  const inputs: HandoutInput[] = [];
  for (const routine of own.record.routines)
    inputs.push(await handoutOf(unit, own, routine, (index) => `$.${routine.occasion}.items[${index}]`));
  const [first, ...more] = inputs;
  if (!first)
    throw new ApiProblem('invalid-request', { errors: [{ path: '$', message: 'no routine is in force' }] });
  return sendPdf('booklet', () => deps.printer.booklet([first, ...more]));
}

const ICAL_DAY = {
  mon: ICalWeekday.MO,
  tue: ICalWeekday.TU,
  wed: ICalWeekday.WE,
  thu: ICalWeekday.TH,
  fri: ICalWeekday.FR,
  sat: ICalWeekday.SA,
  sun: ICalWeekday.SU,
} as const;

/** The first day from a day on that is one of some days of the week. */
function firstDay(from: string, days: readonly (keyof typeof ICAL_DAY)[]): Date {
  const start = new Date(`${from}T00:00:00Z`);
  for (let ahead = 0; ahead < 7; ahead += 1) {
    const day = new Date(start.getTime() + ahead * 86_400_000);
    const name = WEEKDAYS[(day.getUTCDay() + 6) % 7];
    if (name && days.includes(name)) return day;
  }
  return start;
}

/** The week as an iCalendar: each occasion that has days, every week on them, with its lines. */
export async function weekCalendar(unit: Unit, athleteId: string): Promise<Sent> {
  const record = await loadRecord(unit, athleteId, unit.today);
  const kept = await unit.rows.occasions.all({ athleteId });
  const settings = await unit.practice();
  const planned = record.routines.filter(({ occasion }) => frequencyOf(kept, occasion).days.length > 0);
  refuse(
    planned.length > 0
      ? []
      : [{ path: '$', message: 'no routine in force has days of the week; choose them beside its occasion' }],
  );
  const calendar = ical({
    name: `Routines: ${record.athlete.name}`,
    prodId: { company: settings.name, product: 'Yonder Ridge' },
  });
  for (const routine of planned) {
    const { items, request, ownDrills } = routine;
    const reference = referenceAsIssued(settings, ownDrills);
    await passDoor(unit, record, items, unit.today, {
      schools: request.schools,
      at: (i) => `$.${routine.occasion}.items[${i}]`,
    });
    const { days, timesPerDay } = frequencyOf(kept, routine.occasion);
    const times = timesPerDay > 1 ? `, ${timesPerDay} times` : '';
    calendar.createEvent({
      id: `${routine.occasion}.${athleteId}@yonder-ridge`,
      start: firstDay(unit.today, days),
      allDay: true,
      summary: `${OCCASION_LABEL[routine.occasion]}: ${duration(routine.totalSeconds)}${times}`,
      description: items
        .map((item) => [lineName(reference, item), lineAmount(item)].filter(Boolean).join(', '))
        .join('\n'),
      repeating: { freq: ICalEventRepeatingFreq.WEEKLY, byDay: days.map((day) => ICAL_DAY[day]) },
    });
  }
  return new Sent((response) => {
    response
      .type('text/calendar')
      .set('Content-Disposition', 'attachment; filename="week.ics"')
      .send(calendar.toString());
    return Promise.resolve();
  });
}
