import { prepareBuild } from '../src/builder/index.ts';
import type { Prepared } from '../src/builder/index.ts';
import { assessCase } from '../src/assess/index.ts';
import type { Case, RoutineItem } from '../src/domain/index.ts';
import type { Reference } from '../src/reference/index.ts';
import { isLine } from '../src/reference/index.ts';
import { caseSchema } from '../src/schemas/index.ts';
import { chosenItem, firstChoice, takeOver } from '../src/takeover/index.ts';
import type { TakenLine, WrittenLine } from '../src/takeover/index.ts';

/** What a row of a list taken over is. */
type RowKind = 'drill' | 'text' | 'section' | 'rounds' | 'rest' | 'caution' | 'days' | 'clock';

/** One line of a list, or one part of a line, as it was understood: see docs/case-format.md. */
export interface TakeoverRow {
  readonly line: string;
  /** The place of the line in the file, from 1, empty lines left out. */
  readonly row: number;
  readonly kind: RowKind;
  readonly sure: 'sure' | 'likely' | 'choose' | 'text' | 'held' | null;
  readonly drill: string | null;
  readonly others: readonly string[];
  readonly sets: number | null;
  readonly amount: number | null;
  readonly measure: string | null;
  readonly side: string | null;
  readonly holdSeconds: number | null;
  readonly restSeconds: number | null;
  readonly load: string | null;
  readonly note: string | null;
  /** What only some lines say. */
  readonly more: Readonly<Record<string, unknown>>;
}

const KINDS: Partial<Record<TakenLine['kind'], RowKind>> = {
  rest: 'rest',
  section: 'section',
  circuit: 'rounds',
  caution: 'caution',
  days: 'days',
};

/** What the dose says in the unit it was written in, where the drill counts something else. */
function asWritten(
  { dose }: WrittenLine,
  item: RoutineItem,
): Pick<TakeoverRow, 'sets' | 'amount' | 'measure'> {
  const own = { sets: item.sets, amount: item.amount, measure: item.measure };
  const { amount, unit, sets } = dose;
  if (amount === null || unit === null || unit === 'reps') return own;
  if (unit === 's' && item.holdSeconds !== null) return own;
  const measure = { s: 'seconds', m: 'metres', breaths: 'breaths', lengths: 'lengths' }[unit];
  const held = unit === 's' && item.measure === 'hold-seconds';
  return held ? own : { sets: sets ?? 1, amount, measure };
}

function moreOf(line: TakenLine, item: RoutineItem | null): Record<string, unknown> {
  const { written } = line;
  const { head, caution, days, superset, at, tempo, efforts, dose, often, negated } = written;
  const all: Record<string, unknown> = {
    rounds: head?.circuit?.rounds,
    roundsTo: head?.roundsTo,
    pace: head?.circuit?.pace,
    step: head?.circuit?.step,
    minutes: head?.minutes,
    ofLast: head?.ofLast,
    asManyRounds: head?.asManyRounds || undefined,
    avoid: caution?.avoid || undefined,
    painLimit: caution?.painLimit,
    days: days && days.days.length > 0 ? days.days : undefined,
    perWeek: days?.perWeek,
    superset,
    at,
    tempo,
    efforts: efforts.length > 0 ? efforts : undefined,
    amounts: dose.amounts,
    amountFrom: item?.amountFrom,
    setsTo: dose.setsTo,
    perSide: item?.perSide,
    asMany: item?.asMany,
    bothWays: item?.bothWays,
    holdBreaths: item?.holdBreaths,
    distance: written.distance,
    loadKg: written.load?.kg,
    often: often || undefined,
    negated: negated || undefined,
  };
  return Object.fromEntries(Object.entries(all).filter(([, value]) => value !== undefined && value !== null));
}

function rowOf(line: TakenLine): TakeoverRow {
  const { written, readings, paper, row } = line;
  const choose = line.kind === 'choose' ? readings.findIndex(({ held }) => held === null) : -1;
  const item = chosenItem(line, choose >= 0 ? choose : firstChoice(line));
  const drill = item !== null && !isLine(item.drill) ? item.drill : null;
  const plain = KINDS[line.kind];
  const others = readings.map((reading) => reading.item.drill).filter((id) => id !== drill);
  const dosed = item && plain === undefined && (drill !== null || item.amount > 0) ? item : null;
  const sure =
    line.kind === 'sure' || line.kind === 'likely' || line.kind === 'choose' || line.kind === 'held'
      ? line.kind
      : 'text';
  return {
    line: paper,
    row: row + 1,
    kind:
      plain ??
      (written.at !== null
        ? 'clock'
        : drill !== null || line.kind === 'choose' || line.kind === 'held'
          ? 'drill'
          : 'text'),
    sure: plain === undefined ? sure : null,
    drill,
    others: plain === undefined ? others : [],
    ...(dosed ? asWritten(written, dosed) : { sets: null, amount: null, measure: null }),
    side: dosed ? (drill !== null || written.side !== null ? dosed.side : null) : null,
    holdSeconds: dosed?.holdSeconds ?? null,
    restSeconds: written.pause ?? written.restSeconds ?? written.head?.circuit?.restSeconds ?? null,
    load: written.load?.text ?? null,
    note: (dosed?.note ?? (plain === undefined && drill === null ? written.words : null)) || null,
    more: moreOf(line, item),
  };
}

/** A grown athlete of whom nothing is known: no precaution keeps anything out. */
const NOBODY = {
  format: 'yonder-ridge-case/1',
  today: '2030-01-01',
  athlete: { birthDate: '2000-01-01', bodyMassKg: 70, trainingYears: 6 },
};

function preparedFor(reference: Reference, input: Case): Prepared {
  return prepareBuild(assessCase(reference, input), input.request);
}

/** A list as rows, for the athlete of a case or for nobody in particular. */
export function takeoverRows(reference: Reference, text: string, input: Case | null): TakeoverRow[] {
  const prepared = preparedFor(reference, input ?? caseSchema.parse(NOBODY));
  return takeOver(prepared, text)
    .filter(({ kind }) => kind !== 'joined')
    .map(rowOf);
}
