import { TIMING } from '../dose/index.ts';
import type { Mode, Region } from '../domain/index.ts';
import { FIT } from '../readiness/index.ts';
import type { Option } from './options.ts';
import type { Promised } from './promises.ts';
import { BROUGHT_KIT, BUILDER, rampSteps } from './settings.ts';
import type { WeightedRestriction } from './weights.ts';
import type { TodaysPhase } from './structures.ts';

/**
 * A wish over the chosen options: the sum of their weights should lie between `least` and `most`. Each unit outside
 * costs; nothing forbids it.
 */
export interface Band {
  readonly id: string;
  readonly least: number;
  readonly most: number;
  readonly weight: (option: Option) => number;
  /** Cost of each unit below `least` and above `most`. */
  readonly under: number;
  readonly over: number;
}

/** What leaving a band costs a plan whose options add up to this. */
export function bandCost(band: Band, sum: number): number {
  return band.under * Math.max(0, band.least - sum) + band.over * Math.max(0, sum - band.most);
}

/** What the wishes of a problem are made from. */
export interface BandInput {
  readonly options: readonly Option[];
  readonly weights: readonly WeightedRestriction[];
  readonly phases: readonly TodaysPhase[];
  readonly mode: Mode;
  readonly seconds: number;
  readonly maxDrills: number;
  /** What the methods chosen promise of it. */
  readonly promised: readonly Promised[];
  /** The day's action is running. */
  readonly runs: boolean;
  /** Demand up to which a drill is an easy start for this athlete. */
  readonly easyFrom: number;
  /** Gentle drills of each region and side that hurts; one of those `wanted` is to be in. */
  readonly relieving: readonly {
    readonly id: string;
    readonly region: Region;
    readonly drills: ReadonlySet<string>;
    readonly wanted: ReadonlySet<string>;
  }[];
  /** Graded drills for each painful position that is restored; one is to be in. */
  readonly restoring: readonly {
    readonly id: string;
    readonly drills: ReadonlySet<string>;
    readonly onlyOne: boolean;
  }[];
}

/** A change-over belongs to the drill before it, so that shares add up to the whole. */
const timeOf = (option: Option) => option.seconds + TIMING.changeover;
/** Does a drill warm up (rulings, "Warm-up ramp")? `temperature` is how much it raises it, 0 to 3. */
export const warms = ({ category, temperature }: Pick<Option, 'category' | 'temperature'>) =>
  category === 'raise' || (category === 'neuromuscular' && temperature >= BUILDER.warmsFrom);

/** Seconds of warming that a preparation of this length asks for (rulings, "Warm-up ramp"). */
export function warmingWanted(seconds: number): number {
  return Math.min(BUILDER.warmingMost, BUILDER.warmingShare * seconds);
}

/** At least `least`, at a cost for the whole shortfall; nothing when no option counts towards it. */
function atLeast(input: BandInput, id: string, least: number, cost: number, weight: Band['weight']): Band[] {
  const counts = least > 0 && input.options.some((option) => weight(option) > 0);
  return counts ? [{ id, least, most: Infinity, weight, under: cost / least, over: 0 }] : [];
}

/** The most by which two plans can differ in everything but what they cover: benefit, ties, costs and other wishes. */
function spreadOf({ options, weights, maxDrills }: BandInput, wishes: readonly Band[]): number {
  const ranks = BUILDER.ranks.reduce((sum, rank) => sum + rank, 0);
  const best = weights.map(() => 0);
  let ofItself = 0;
  const kit = new Set<string>();
  for (const option of options) {
    for (const { need, value } of option.benefit) best[need] = Math.max(best[need] ?? 0, value);
    ofItself = Math.max(ofItself, Math.abs(option.tie - BUILDER.fatiguePenalty * option.fatigue));
    for (const one of option.kit) kit.add(one);
  }
  const unmet = wishes.reduce((sum, band) => sum + band.under * band.least, 0);
  // Time outside the shares of the phases is never more than the whole.
  const outside = wishes.some(({ over }) => over > 0) ? BUILDER.shareCost : 0;
  return (
    ranks * best.reduce((sum, value) => sum + value, 0) +
    maxDrills * ofItself +
    BUILDER.kitPenalty * kit.size +
    unmet +
    outside
  );
}

/**
 * One drill for every weighted restriction that wants covering and that some option covers. Leaving one without costs
 * more than everything else of a plan can be worth, so that what serves most findings is never passed over, and more
 * minutes never serve fewer: a plan that fits into the shorter time fits into the longer one too.
 */
function coverage(input: BandInput, wishes: readonly Band[]): Band[] {
  const byWeight = input.weights.reduce(
    (sum, { wanted, weight }) => sum + (wanted ? BUILDER.uncoveredByWeight * weight : 0),
    0,
  );
  const base = 1 + spreadOf(input, wishes) + byWeight;
  return input.weights.flatMap((weighted, need) =>
    weighted.wanted
      ? atLeast(input, `cover:${need}`, 1, base + BUILDER.uncoveredByWeight * weighted.weight, (o) =>
          o.benefit.some((b) => b.need === need) ? 1 : 0,
        )
      : [],
  );
}

/**
 * A drill that is made for what is short, not one that comes near it: where any is open, in full from a match of so much.
 * What is nearly enough to cover a finding would else be all it gets.
 */
function wellServed({ weights, options }: BandInput): { need: number; least: number; weight: number }[] {
  return weights.flatMap(({ wanted, weight }, need) => {
    if (!wanted) return [];
    const best = Math.max(
      0,
      ...options.flatMap((o) => o.benefit.flatMap((b) => (b.need === need ? b.match : []))),
    );
    return [{ need, least: Math.min(BUILDER.servesWell, best), weight }];
  });
}

/** Fewest drills of a phase, its own least seconds, and its share of the time within half and one and a half of it. */
function phaseBands(input: BandInput): Band[] {
  return input.phases.flatMap((phase, index): Band[] => {
    const here = input.options.filter((option) => option.phase === index);
    const ladders = new Set(here.map((option) => option.ladder)).size;
    const least = Math.min(phase.minDrills, ladders);
    const inPhase = (value: (o: Option) => number) => (o: Option) => (o.phase === index ? value(o) : 0);
    const cost = BUILDER.phaseMinimumPenalty * least;
    const drills = atLeast(
      input,
      `phase:${phase.id}`,
      least,
      cost,
      inPhase(() => 1),
    );
    if (phase.shareOfTime <= 0 || here.length === 0) return drills;
    const share = phase.shareOfTime * input.seconds;
    const own = phase.minSeconds ?? 0;
    const low = Math.max(phase.optional ? 0 : 0.5 * share, own);
    const high = Math.max(1.5 * share, low);
    const perSecond = BUILDER.shareCost / input.seconds;
    return [
      ...drills,
      ...atLeast(input, `least:${phase.id}`, own, BUILDER.wishCost, inPhase(timeOf)),
      {
        id: `share:${phase.id}`,
        least: low,
        most: high,
        weight: inPhase(timeOf),
        under: perSecond,
        over: perSecond,
      },
    ];
  });
}

/**
 * Seconds of warming by what the actions warm with, each as far as it fits. Who runs afterwards is warmed by running: what
 * rehearses it counts, and it takes nearly half of the time.
 */
function warmthBands(input: BandInput): Band[] {
  const { warmthShare, warmthLeast, warmthMost, runShare, runMost, warmsFit } = BUILDER;
  const { seconds, runs } = input;
  const wanted = runs
    ? Math.min(runShare * seconds, runMost)
    : Math.min(Math.max(warmthShare * seconds, warmthLeast), warmthMost);
  return atLeast(input, 'warmth', wanted, runs ? BUILDER.runCost : BUILDER.warmthCost, (o) => {
    if (runs && o.rehearses !== null) return o.seconds;
    return o.warmth >= warmsFit ? o.seconds * o.warmth : 0;
  });
}

/** A drill for every element that the routine should hold; one that fits it less counts as much as it fits. */
function elementBands(input: BandInput): Band[] {
  const { most, less, least } = BUILDER.elementCost;
  // In a session of its own, and after one, what was found short is worked on with more than one drill.
  const share = input.mode === 'prepare' ? 1 : BUILDER.elementShare;
  const elements = input.weights.flatMap(({ from, priority }, need) =>
    from === 'element' ? [{ need, first: priority > 0 }] : [],
  );
  return elements.flatMap(({ need, first }, place) =>
    atLeast(
      input,
      `element:${need}`,
      1,
      share * (first ? BUILDER.elementFirstCost : Math.max(least, most - less * place)),
      (o) => {
        const match = o.benefit.find((b) => b.need === need)?.match ?? 0;
        return match >= FIT.good ? 1 : match;
      },
    ),
  );
}

/** The action is rehearsed in steps, for a working part of the time. */
function rampBands(input: BandInput): Band[] {
  const { mode, seconds } = input;
  if (mode !== 'prepare') return [];
  const steps = rampSteps(seconds / 60);
  const wanted = Math.min(BUILDER.rampMost, BUILDER.rampShare * seconds);
  return [
    ...atLeast(input, 'ramp', wanted, BUILDER.rampCost, (o) => (o.rehearses === null ? 0 : o.seconds)),
    ...atLeast(input, 'ramp-steps', steps, steps * BUILDER.rampStepCost, (o) =>
      o.rehearses === null ? 0 : 1,
    ),
  ];
}

/** Everything a routine is to come near to, beside what it is worth to the findings. */
export function bandsOf(input: BandInput): Band[] {
  const { seconds, mode } = input;
  const prepare = mode === 'prepare';
  const last = input.phases.length - 1;
  const wishes = [
    ...phaseBands(input),
    ...atLeast(input, 'use', BUILDER.useShare * seconds, BUILDER.useCost, timeOf),
    ...(prepare
      ? [
          ...atLeast(input, 'warm', warmingWanted(seconds), BUILDER.warmCost, (o) =>
            warms(o) ? o.seconds : 0,
          ),
        ]
      : []),
    ...(mode === 'restore' ? [] : warmthBands(input)),
    ...wellServed(input).flatMap(({ need, least, weight }) =>
      atLeast(input, `well:${need}`, 1, BUILDER.wellCost.all + BUILDER.wellCost.byWeight * weight, (o) =>
        o.benefit.some((b) => b.need === need && b.match >= least) ? 1 : 0,
      ),
    ),
    ...elementBands(input),
    ...rampBands(input),
    ...(prepare
      ? atLeast(input, 'easy-start', 1, BUILDER.wishCost, (o) =>
          o.phase === 0 && o.demand <= input.easyFrom ? 1 : 0,
        )
      : []),
    ...(prepare && seconds >= BUILDER.twoBlocksFrom * 60
      ? atLeast(input, 'warm-blocks', 2, BUILDER.wishCost, (o) => (o.category === 'raise' ? 1 : 0))
      : []),
    // From an easy run to a faster one.
    ...(prepare && input.runs && seconds >= BUILDER.runBlocksFrom * 60
      ? atLeast(input, 'run-blocks', 2, BUILDER.rampCost, (o) =>
          o.category === 'raise' && o.warmth >= FIT.good ? 1 : 0,
        )
      : []),
    ...(prepare
      ? BROUGHT_KIT.flatMap((piece) =>
          atLeast(input, `kit:${piece}`, 1, BUILDER.kitWish, (o) => (o.kit.includes(piece) ? 1 : 0)),
        )
      : []),
    ...input.promised.flatMap(({ school, shows, last: atTheEnd, seconds: least }) =>
      atLeast(input, school, least ?? 1, BUILDER.promiseCost, (o) => {
        const shown = shows({ ...o, intensityClass: o.intensity }) && (!atTheEnd || o.phase === last);
        return shown ? (least === undefined ? 1 : o.seconds) : 0;
      }),
    ),
    ...input.relieving.flatMap(({ id, wanted }) =>
      atLeast(input, `relieve:${id}`, 1, BUILDER.promiseCost, (o) => (wanted.has(o.drill) ? 1 : 0)),
    ),
    ...input.restoring.flatMap(({ id, drills }) =>
      atLeast(input, `restore:${id}`, 1, BUILDER.restoreCost, (o) => (drills.has(o.drill) ? 1 : 0)),
    ),
  ];
  return [...coverage(input, wishes), ...wishes];
}
