import { hardRuleOf, heldToday, softRuleOf } from '../builder/index.ts';
import type { Held, Prepared } from '../builder/index.ts';
import type { RoutineItem } from '../domain/index.ts';
import { dosedItem, secondsPerRep, setsFor, TIMING } from '../dose/index.ts';
import type { Drill } from '../reference/index.ts';
import type { WrittenDose } from './line/dose.ts';
import { unmarked } from './line/readLine.ts';
import type { WrittenLine } from './line/readLine.ts';
import { clamp } from './line/reader.ts';
import { matchWords, tellsHow } from './names/match.ts';
import type { Candidate, Matches } from './names/match.ts';

/** A way to understand a line: a drill with the dose as written. */
export interface Reading {
  readonly item: RoutineItem;
  readonly score: number;
  /** Every word of the line is understood, and the drill is what they say. */
  readonly exact: boolean;
  /** Nothing of the line stands beside the drill. */
  readonly whole: boolean;
  /** Words of the line say otherwise than the drill is: it is offered, never taken by itself. */
  readonly against: boolean;
  /** A word of the line is known to nobody: it may be what matters. */
  readonly strange: boolean;
  /** The words leave open which drill of a ladder is meant. */
  readonly open: boolean;
  /** The paper counts otherwise than the drill: how it was turned round. */
  readonly turned: boolean;
  /** What safety says against it today, with the nearest that is allowed. */
  readonly held: Held | null;
}

/** From what score on a drill is offered for a line. */
const OFFERED = 0.4;
/** How much less near another reading may be beside one that is meant word for word. */
const BESIDE = 0.12;
/** Most readings offered for a line. */
const MOST_READINGS = 4;
/** What suits the athlete decides between readings that are as near. */
const SUITS = { sided: 0.004, open: 0.002 } as const;
/** Holds written one by one, "10 × 10 s", are one set from so many on. */
const HOLDS_OF_A_SET = 5;
/** Metres that one step covers, and metres a second at a walk and at an easy run: to turn metres round where a drill counts otherwise. */
const METRES = { step: 0.5, second: 2 } as const;
/** Seconds from which on a hold is no pause of a repetition. */
const LONG_HOLD = 15;
/** Seconds of one repetition of what is usually timed. */
const SECONDS_A_REP = 3;
/** Most metres of a lane of a speed ladder or of small drills that are counted in lengths. */
const MOST_LENGTHS = 12;

/** Is a drill counted, each repetition held? */
const holdsOnce = ({ dose }: Drill) => dose.measure === 'reps' && dose.holdSeconds !== null;

interface Amount {
  readonly amount: number | null;
  readonly turned: boolean;
}

/** An amount in the measure of a drill; `turned` where the paper counts something else. */
function amountIn(
  drill: Drill,
  perRep: number,
  written: WrittenDose,
  holds: number | null,
  shared: boolean,
): Amount {
  const { amount, unit } = written;
  const { measure } = drill.dose;
  const timed = measure === 'hold-seconds' || measure === 'seconds';
  if (amount === null) return { amount: timed && holds !== null ? holds : null, turned: false };
  switch (unit) {
    case 's':
      if (timed) return { amount, turned: false };
      if (holdsOnce(drill)) return { amount: 1, turned: true };
      return { amount: Math.max(1, Math.round(amount / perRep / (shared ? 2 : 1))), turned: true };
    case 'breaths':
      return { amount: timed ? Math.round(amount * TIMING.breath) : amount, turned: false };
    case 'm':
      if (measure === 'metres') return { amount, turned: false };
      return {
        amount: Math.max(1, Math.round(timed ? amount / METRES.second : amount / METRES.step)),
        turned: true,
      };
    case 'lengths':
      return { amount: null, turned: measure !== 'metres' };
    default:
      // "10 × 10 s hold" of a drill that is held: each hold is a set's worth of it.
      if (timed && holds !== null) return { amount: Math.round(amount * holds), turned: true };
      // "once", "twice" of what is timed say no time.
      if (measure === 'seconds' && amount <= 2) return { amount: null, turned: true };
      if (measure === 'seconds' && drill.category !== 'raise')
        return { amount: Math.round(amount * Math.max(SECONDS_A_REP, perRep)), turned: true };
      if (timed && (unit === 'reps' || amount < 10))
        return { amount: Math.round(amount * Math.max(1, perRep)), turned: true };
      return { amount, turned: measure === 'metres' && amount <= MOST_LENGTHS };
  }
}

/** "4 lengths", and "x4" of a drill that is done by the length: sets of its usual lane. */
function inLengths(drill: Drill, dose: WrittenDose): number | null {
  if (drill.dose.measure !== 'metres' || dose.sets !== null || dose.amount === null) return null;
  const lengths = dose.unit === 'lengths' || (dose.unit === null && dose.amount <= MOST_LENGTHS);
  return lengths ? dose.amount : null;
}

/** What a line says that no field of the item holds; of own words all that a drill would hold. */
export function besides(drill: Drill | null, written: WrittenLine, turned: boolean): string[] {
  const { dose, load, efforts, distance } = written;
  const loads = load?.kg !== null && load?.kg !== undefined && drill !== null && hasStep(drill, load.kg);
  const varied = dose.amounts !== null && new Set(dose.amounts).size > 1;
  return [
    varied ? `${dose.amounts.join(', ')} reps` : '',
    dose.setsTo === null ? '' : `${dose.sets}–${dose.setsTo} sets`,
    load !== null && (!loads || load.text.includes('×')) ? load.text : '',
    efforts.length > 0 ? `at ${efforts.join(', ')} %` : '',
    distance === null ? '' : `at ${distance} m`,
    turned && dose.unit === 'm' ? `${dose.amount} m` : '',
    turned && (dose.unit === null || dose.unit === 'reps') && drill?.dose.measure !== 'metres'
      ? `${dose.amount} times`
      : '',
    dose.unit === 'breaths' ? `${dose.amount} breaths` : '',
    written.negated,
    written.often,
  ].filter(Boolean);
}

const loadVariable = (drill: Drill) =>
  drill.setupVariables.find(({ id, unit }) => id === 'load' && unit === 'kg');
const hasStep = (drill: Drill, kg: number) => loadVariable(drill)?.steps.includes(kg) ?? false;

/** The item of a drill with the dose as it is written; what is not written is as the rules dose it. */
export function itemAs(
  prepared: Prepared,
  drill: Drill,
  written: WrittenLine,
  aside: string,
): { item: RoutineItem; turned: boolean } {
  const side = drill.unilateral ? (written.side ?? 'both') : 'both';
  const usual = setsFor(prepared.dose, drill)[0] ?? 1;
  const { item: base } = dosedItem(prepared.dose, drill, side, usual, null);
  const { dose } = written;
  const eachHeld = dose.unit === 's' && holdsOnce(drill) ? dose.amount : null;
  const held = written.holdSeconds ?? eachHeld;
  const kg = written.load?.kg ?? null;
  const dosed: RoutineItem = {
    ...base,
    ...(written.tempo === null ? {} : { tempo: written.tempo }),
    ...(held !== null && drill.dose.measure === 'reps' ? { holdSeconds: clamp(held, 0, 600) } : {}),
    ...(written.holdBreaths !== null && drill.dose.measure === 'reps'
      ? { holdBreaths: written.holdBreaths }
      : {}),
    ...(written.restSeconds === null ? {} : { restSeconds: clamp(written.restSeconds, 0, 600) }),
    ...(written.bothWays ? { bothWays: true } : {}),
    ...(written.asMany ? { asMany: true } : {}),
    ...(kg !== null && hasStep(drill, kg) ? { setup: { ...base.setup, load: kg } } : {}),
  };
  const perRep = secondsPerRep(drill, dosed);
  const doseOf = (own: WrittenDose) => {
    const lengths = inLengths(drill, own);
    // Two minutes of a drill that is done a side at a time, and no side named: both sides share them.
    const shared = drill.unilateral && written.side === null;
    const asOneSet = eachHeld !== null && (own.sets ?? 1) >= HOLDS_OF_A_SET;
    const most =
      lengths !== null || asOneSet
        ? { amount: null, turned: false }
        : amountIn(drill, perRep, own, written.holdSeconds, shared);
    const amount = clamp(asOneSet ? (own.sets ?? 1) : (most.amount ?? dosed.amount), 1, 1000);
    const least =
      own.amountFrom === null || asOneSet
        ? null
        : amountIn(drill, perRep, { ...own, amount: own.amountFrom }, null, shared).amount;
    const said = own.amount !== null || most.amount !== null;
    return {
      turned: most.turned,
      sets: clamp(lengths ?? (asOneSet ? 1 : (own.sets ?? (said ? 1 : dosed.sets))), 1, 20),
      amount,
      ...(least !== null && least < amount ? { amountFrom: clamp(least, 1, 1000) } : {}),
    };
  };
  const noted = (turned: boolean) => {
    const note = [aside, ...besides(drill, written, turned)].filter(Boolean).join('; ').slice(0, 500);
    return note === '' ? {} : { note };
  };
  const { turned, ...whole } = doseOf(dose);
  const many = dose.amounts === null ? {} : { amountFrom: Math.min(...dose.amounts) };
  const varied = many.amountFrom !== undefined && many.amountFrom < whole.amount ? many : {};
  if (!written.perSide || !drill.unilateral)
    return { item: { ...dosed, ...whole, ...varied, ...noted(turned) }, turned };
  const left = doseOf(written.perSide.left);
  const right = doseOf(written.perSide.right);
  const bare = ({ turned: _t, ...own }: typeof left) => own;
  return {
    item: {
      ...dosed,
      sets: left.sets,
      amount: left.amount,
      perSide: { left: bare(left), right: bare(right) },
      ...noted(turned),
    },
    turned: left.turned || right.turned,
  };
}

/** Figures left among the words that belong to no dose and no name. */
export function hasFigures(words: string): boolean {
  return /\d/.test(words.replace(/deg\d+|\b[1-4] ?(?:way|leg|arm|point|pt|hand|foot|feet)\w*/gi, ''));
}

/** What is done, and what is said beside it: "heel raises off step" and "slow". */
function clausesOf(words: string): { main: string; aside: string } {
  const [, main = words, aside = ''] =
    /^(.+?)(?:\s*[,;(:]\s*|\s+-\s+|\s+(?=(?:only|if|unless|until|while|think|focus|feel|push|squeeze|keep|nur|wenn|bis|without pain|no pain|pain[- ]?free|schmerzfrei)\b)|\s+(?=(?:to|past|around|along|across|behind|towards|into) the\b))(.+?)\)?$/i.exec(
      words,
    ) ?? [];
  return { main, aside };
}

/** How something is to be done, in words that change no drill: kept beside it. */
const MANNER =
  /\b(?:slow(?:ly)?|fast|quick(?:ly)?|easy|light|heavy|controlled|explosive|strict|smooth(?:ly)?|langsam|schnell|locker|leicht|schwer|kontrolliert|explosiv)\b/giu;

function mannerOf(words: string, { name }: Drill): string {
  const said = (words.match(MANNER) ?? []).filter((word) => !name.toLowerCase().includes(word.toLowerCase()));
  return said.join(', ');
}

function readingOf(
  prepared: Prepared,
  written: WrittenLine,
  candidate: Candidate & { aside: string },
): Reading | null {
  const drill = prepared.reference.drills.get(candidate.drill);
  if (!drill) return null;
  const sided = written.side !== null && drill.unilateral ? SUITS.sided : 0;
  const open = !hardRuleOf(prepared, drill) && !softRuleOf(prepared, drill) ? SUITS.open : 0;
  // What is not in the drill is not lost: it stands beside it.
  const whole = !candidate.exact || hasFigures(written.words);
  const aside = candidate.aside || mannerOf(written.words, drill);
  const { item, turned } = itemAs(prepared, drill, written, whole ? unmarked(written.raw).text : aside);
  // A long hold of what is counted and not held is something else.
  const held =
    written.holdSeconds !== null && written.holdSeconds >= LONG_HOLD && written.dose.amount === null;
  const strained = held && drill.dose.measure === 'reps' && drill.dose.holdSeconds === null;
  const exact = candidate.exact && !strained;
  const against = candidate.against || strained;
  return {
    item,
    turned,
    exact,
    whole: candidate.aside === '',
    against,
    strange: candidate.strange,
    open: candidate.open,
    score: candidate.score + sided + open,
    held: heldToday(prepared, item),
  };
}

/** "forwards and back": both ways round, where no name has it. */
const FORTH_AND_BACK =
  /[\s,(]*\b(?:fwd|forwards?|vor(?:wärts)?)\s*(?:\/|&|\+|,|and|und)\s*(?:back\w*|bwd|bkwd|zurück|rückwärts|rueckwaerts)(?!\p{L})\)?/iu;

/** A line with "forwards and back" taken as both ways round, where its words as they stand are nothing. */
export function withBothWays(prepared: Prepared, written: WrittenLine): WrittenLine {
  if (!FORTH_AND_BACK.test(written.words)) return written;
  if (matchWords(prepared.reference, written.words).candidates[0]?.exact) return written;
  return { ...written, words: written.words.replace(FORTH_AND_BACK, ' ').trim(), bothWays: true };
}

/** What the words of a line may mean: as a whole, by what stands before what is said beside it, and of "walk or jog" each half. */
export function readingsOf(
  prepared: Prepared,
  written: WrittenLine,
): { readings: Reading[]; absent: boolean; either: boolean } {
  const { reference } = prepared;
  const halves = written.words.split(/\s+(?:or|oder)\s+/i);
  const either = halves.length > 1;
  const best = new Map<string, Candidate & { aside: string }>();
  const put = ({ candidates }: Matches, aside: string) => {
    for (const one of candidates) {
      const known = best.get(one.drill);
      if ((known?.score ?? 0) < one.score) best.set(one.drill, { ...one, aside });
    }
  };
  const named = written.negated === '' ? null : matchWords(reference, `${written.words} ${written.negated}`);
  // "Throwing path without a ball" is a name.
  const isName = named?.candidates[0]?.exact ?? false;
  // With a load beside it the drill that is done with one is meant, where there is one.
  const loaded = written.load?.kg ? matchWords(reference, `${written.words} weight`) : null;
  const whole =
    isName && named ? named : loaded?.candidates[0]?.exact ? loaded : matchWords(reference, written.words);
  const { main, aside } = clausesOf(written.words);
  if (!either) put(whole, '');
  let { absent } = whole;
  // What is said beside it may make it another drill: "push-up, on knees".
  if (aside !== '' && !tellsHow(reference, aside) && !whole.candidates.some(({ exact }) => exact)) {
    const part = matchWords(reference, main);
    put(part, aside);
    absent = absent || (part.absent && !(whole.candidates[0] && whole.candidates[0].score > 0.9));
  }
  const [, before = '', after = ''] = /^([^:]{3,40}):\s*(.{3,})$/.exec(written.words) ?? [];
  if (after !== '' && !tellsHow(reference, before)) put(matchWords(reference, after), before);
  if (either) for (const half of halves) put(matchWords(reference, half), '');
  const readings = [...best.values()]
    .filter(({ score }) => score >= OFFERED)
    .flatMap(
      (candidate) => readingOf(prepared, isName ? { ...written, negated: '' } : written, candidate) ?? [],
    )
    .sort((a, b) => Math.round((b.score - a.score) * 500))
    .slice(0, MOST_READINGS);
  // Beside what is meant word for word only what is as near is offered.
  const [first] = readings;
  if (first?.exact)
    return {
      readings: readings.filter(({ score }) => score > first.score - BESIDE),
      absent: absent && !either,
      either,
    };
  return { readings, absent: absent && !either, either };
}
