import { benefitAmong, BUILDER, nearestAction, swapsFor } from '../builder/index.ts';
import type { Prepared } from '../builder/index.ts';
import { sameJson } from '../domain/index.ts';
import type { CheckIn, Region, RoutineItem } from '../domain/index.ts';
import { dosedItem, loadsOnce, routineSeconds, setsFor } from '../dose/index.ts';
import { schoolOption } from '../findings/index.ts';
import { binds, drillSafety, routineSafetyFaults, topicsDueFor, works } from '../safety/index.ts';
import type { DayRule } from '../safety/index.ts';
import { isLine } from '../reference/index.ts';
import type { Drill } from '../reference/index.ts';
import type { Reason } from '../reasons/index.ts';
import type { IdentifiedItem } from '../routine/index.ts';
import { CHECK_IN } from './settings.ts';

/** One thing that is otherwise today, with why. */
export interface TodayChange {
  /** The same for the same thing, however often it is worked out: what is put back is named by it. */
  readonly id: string;
  readonly kind: 'out' | 'eased' | 'swapped' | 'added' | 'longer' | 'shorter';
  /** The line it is about; null for one that came in. */
  readonly item: string | null;
  readonly because: Reason;
  /** What the rules of the day keep out is not put back: the rule is lifted, or the pain told lower. */
  readonly firm: boolean;
  /** Seconds that the session takes more or less. */
  readonly seconds: number;
}

/** A routine as it is done today: the issued version stays as it is. */
export interface TodaysCopy {
  /** Every line, those that are out as well; what came in has a name instead of an id. */
  readonly items: readonly (RoutineItem & { readonly id: string })[];
  /** Ids of lines that are not done today. */
  readonly out: ReadonlySet<string>;
  readonly changes: readonly TodayChange[];
  readonly seconds: number;
}

interface Working {
  readonly prepared: Prepared;
  readonly said: CheckIn;
  readonly undone: ReadonlySet<string>;
  items: IdentifiedItem[];
  out: Set<string>;
  changes: TodayChange[];
}

/** Lines that are done. */
const done = ({ items, out }: Pick<Working, 'items' | 'out'>) => items.filter(({ id }) => !out.has(id));
const secondsOf = (working: Working) => routineSeconds(working.prepared.reference, done(working));
const drillOf = ({ prepared }: Working, item: RoutineItem): Drill | null =>
  isLine(item.drill) ? null : (prepared.reference.drills.get(item.drill) ?? null);

/** Regions that hurt today by what was said before the session, however little. */
function soreRegions({ said }: Working): Set<Region> {
  return new Set(said.sore.filter(({ nrs }) => nrs > 0).map(({ region }) => region));
}

/** Load of what is done on each region that hurts. */
function soreLoad(working: Working): number[] {
  const loads = loadsOnce(working.prepared.reference, done(working));
  return [...soreRegions(working)].map((region) => loads.get(region) ?? 0);
}

/**
 * Makes one change, unless it was put back or would put more load on a region that hurts; says it with the seconds that it
 * makes.
 */
function make(
  working: Working,
  change: Omit<TodayChange, 'seconds' | 'firm'> & { firm?: boolean },
  act: () => void,
): boolean {
  const { firm = false } = change;
  if (!firm && working.undone.has(change.id)) return false;
  const before = {
    items: working.items,
    out: new Set(working.out),
    load: soreLoad(working),
    seconds: secondsOf(working),
  };
  act();
  const more = soreLoad(working).some((load, i) => load > (before.load[i] ?? 0) + 1e-9);
  if (more && !firm) {
    working.items = before.items;
    working.out = before.out;
    return false;
  }
  working.changes.push({ ...change, firm, seconds: secondsOf(working) - before.seconds });
  return true;
}

const replace = (working: Working, id: string, next: (item: IdentifiedItem) => IdentifiedItem) => {
  working.items = working.items.map((item) => (item.id === id ? next(item) : item));
};

/** What the rules of the day, stop signs and precautions keep out. */
function leaveOut(working: Working): void {
  const { reference, standing, safety } = working.prepared;
  const faults = routineSafetyFaults(
    reference,
    working.items,
    standing.athlete,
    standing.today,
    safety.dayRules,
  );
  for (const { index, drill, rule, about } of faults) {
    const item = index === null ? undefined : working.items[index];
    if (
      !item ||
      rule === 'not-asked' ||
      rule === 'archived' ||
      rule === 'unknown-drill' ||
      working.out.has(item.id)
    )
      continue;
    const because: Reason = { rule: 'forbidden-today', drill, because: rule, about };
    make(working, { id: `out/${item.id}`, kind: 'out', item: item.id, because, firm: true }, () =>
      working.out.add(item.id),
    );
  }
}

function amberRule(working: Working, drill: Drill): DayRule | undefined {
  return working.prepared.safety.dayRules.find(
    (rule) => rule.band === 'amber' && binds(rule) && works(drill, rule.region),
  );
}

type Dose = Pick<RoutineItem, 'sets' | 'amount' | 'amountFrom'>;

/** A dose of no more sets and no more than an amount; a range that this closes is none. */
function atMost({ sets, amount, amountFrom }: Dose, most: Dose): Dose {
  const cut = Math.min(amount, Math.max(most.amount, 1));
  return {
    sets: Math.min(sets, most.sets),
    amount: cut,
    amountFrom: amountFrom !== undefined && amountFrom < cut ? amountFrom : undefined,
  };
}

/** Drills that work a region in amber: as few sets as its rule allows, at the least dose there is. */
function easeSore(working: Working): void {
  for (const item of done(working)) {
    const drill = drillOf(working, item);
    const rule = drill && amberRule(working, drill);
    if (!drill || !rule) continue;
    const most = { sets: rule.caps?.sets ?? CHECK_IN.amberSets, amount: drill.dose.amount.min };
    const { perSide } = item;
    const eased: IdentifiedItem = {
      ...item,
      ...atMost(item, most),
      ...(perSide
        ? { perSide: { left: atMost(perSide.left, most), right: atMost(perSide.right, most) } }
        : {}),
    };
    if (sameJson(eased, item)) continue;
    const because: Reason = {
      rule: 'eased-sore',
      drill: drill.id,
      region: rule.region,
      pain: rule.nrs,
      sets: most.sets,
    };
    make(working, { id: `eased/${item.id}`, kind: 'eased', item: item.id, because, firm: true }, () =>
      replace(working, item.id, () => eased),
    );
  }
}

/** Slept badly: a set less of what is hard. */
function easeTired(working: Working): void {
  if (working.said.slept !== 'badly') return;
  for (const item of done(working)) {
    const drill = drillOf(working, item);
    const hard = drill && (drill.intensityClass === 'high' || drill.fatigue >= CHECK_IN.tiringFrom);
    if (!drill || !hard || item.sets < 2 || item.perSide) continue;
    const because: Reason = { rule: 'eased-tired', drill: drill.id };
    make(working, { id: `tired/${item.id}`, kind: 'eased', item: item.id, because }, () =>
      replace(working, item.id, (own) => ({ ...own, sets: own.sets - 1 })),
    );
  }
}

/** Drills for which there is no room today: another that does the job, else out. */
function fitPlace(working: Working): void {
  const { space } = working.said;
  if (space === null || space === undefined) return;
  const { prepared } = working;
  const fits = (drill: Drill) => space === 'lane' || drill.space !== 'lane';
  for (const item of done(working)) {
    const drill = drillOf(working, item);
    if (!drill || fits(drill)) continue;
    const index = working.items.findIndex(({ id }) => id === item.id);
    const swap = swapsFor(prepared, working.items, index).find((one) => {
      const other = prepared.reference.drills.get(one.drill);
      return other !== undefined && fits(other);
    });
    const change = {
      id: `place/${item.id}`,
      item: item.id,
      because: { rule: 'no-room-today', drill: drill.id },
    } as const;
    const swapped =
      swap !== undefined &&
      make(working, { ...change, kind: 'swapped' }, () =>
        replace(working, item.id, (own) => ({ ...swap.item, id: own.id })),
      );
    if (!swapped) make(working, { ...change, kind: 'out' }, () => working.out.add(item.id));
  }
}

const warmsUp = (drill: Drill | null) => drill?.category === 'raise';

/** Were the stop-and-refer questions of its region answered? What nobody was asked about comes into no session. */
function isAsked({ reference, rules: { standing } }: Prepared, drill: Drill): boolean {
  return topicsDueFor(reference, standing.athlete, [drill.id], standing.today).ofDrill.size === 0;
}

/** Tense: a quiet start, where none is there yet. */
function calmStart(working: Working): void {
  const { tension } = working.said;
  if (tension !== 'tense' && tension !== 'very-tense') return;
  const { prepared } = working;
  const { reference, safety } = prepared;
  if (done(working).some(({ drill }) => CHECK_IN.calming.includes(drill))) return;
  const calm = CHECK_IN.calming
    .flatMap((id) => reference.drills.get(id) ?? [])
    .find((drill) => {
      const { forbidden, sides } = drillSafety(reference, drill, safety);
      return forbidden.length === 0 && sides.left && sides.right && isAsked(prepared, drill);
    });
  if (!calm) return;
  const { item } = dosedItem(prepared.dose, calm, 'both', setsFor(prepared.dose, calm)[0] ?? 1, null);
  const seconds = tension === 'very-tense' ? CHECK_IN.calmSeconds.very : CHECK_IN.calmSeconds.tense;
  make(
    working,
    { id: 'calm-start', kind: 'added', item: null, because: { rule: 'calm-start', drill: calm.id } },
    () => {
      working.items = [{ ...item, id: 'calm-start', sets: 1, amount: seconds }, ...working.items];
    },
  );
}

/** Stiff, sore or badly slept: warming lasts longer. Already warm: it lasts less. */
function fitRamp(working: Working): void {
  const { said, prepared } = working;
  if (prepared.request.mode !== 'prepare') return;
  const warming = done(working).filter(
    (item) => warmsUp(drillOf(working, item)) && item.measure === 'seconds',
  );
  const ago = said.warmMinutesAgo ?? null;
  if (ago !== null && ago <= CHECK_IN.stillWarmMinutes) {
    const school = schoolOption(prepared.reference, prepared.standing.schools, 'still-warm');
    const share = CHECK_IN.warmShare[school] ?? 1;
    for (const item of warming) {
      const shorter = Math.max(CHECK_IN.leastWarming, Math.round((item.amount * share) / 5) * 5);
      if (shorter >= item.amount) continue;
      const because: Reason = { rule: 'still-warm', drill: item.drill, minutes: ago };
      make(working, { id: `warm/${item.id}`, kind: 'shorter', item: item.id, because }, () =>
        replace(working, item.id, (own) => ({ ...own, amount: shorter })),
      );
    }
    return;
  }
  const [first] = warming;
  const wants = said.slept === 'badly' || soreRegions(working).size > 0;
  if (!first || !wants) return;
  const because: Reason = { rule: 'longer-ramp', drill: first.drill, slept: said.slept === 'badly' };
  const more = Math.max(5, Math.round(CHECK_IN.moreWarming / first.sets / 5) * 5);
  make(working, { id: `ramp/${first.id}`, kind: 'longer', item: first.id, because }, () =>
    replace(working, first.id, (own) => ({ ...own, amount: own.amount + more })),
  );
}

/** A gentle drill of a region in amber before anything else of it, where that adds no load to it. */
function gentleFirst(working: Working): void {
  const { prepared } = working;
  const { reference, safety } = prepared;
  for (const rule of safety.dayRules) {
    if (rule.band !== 'amber' || !binds(rule) || rule.leads.length === 0) continue;
    const own = done(working).filter((item) => {
      const drill = drillOf(working, item);
      return drill !== null && works(drill, rule.region);
    });
    const [first] = own;
    if (!first || rule.leads.includes(first.drill)) continue;
    const later = own.find(({ drill }) => rule.leads.includes(drill));
    const id = `gentle/${rule.region}/${rule.side}`;
    const because: Reason = { rule: 'gentle-first', region: rule.region, pain: rule.nrs };
    const before = (item: IdentifiedItem) => {
      const rest = working.items.filter((one) => one.id !== item.id);
      let at = rest.findIndex((one) => one.id === first.id);
      while (at > 0 && first.circuit && rest[at - 1]?.circuit?.id === first.circuit.id) at -= 1;
      const { circuit: _circuit, ...alone } = item;
      working.items = rest.toSpliced(at, 0, { ...alone, phase: first.phase });
    };
    if (later && !later.circuit) {
      make(working, { id, kind: 'longer', item: later.id, because }, () => before(later));
      continue;
    }
    const lead = rule.leads
      .flatMap((drill) => reference.drills.get(drill) ?? [])
      .find(
        (drill) => drillSafety(reference, drill, safety).forbidden.length === 0 && isAsked(prepared, drill),
      );
    if (!lead) continue;
    const side = lead.unilateral && (rule.side === 'left' || rule.side === 'right') ? rule.side : 'both';
    const { item } = dosedItem(prepared.dose, lead, side, 1, first.phase);
    make(working, { id, kind: 'added', item: null, because }, () => before({ ...item, id }));
  }
}

/** Does a drill rehearse what follows? */
function rehearses({ prepared: { reference, rules } }: Working, drill: Drill | null): boolean {
  return drill !== null && (nearestAction(reference, drill, rules.actions)?.tag ?? 0) >= BUILDER.rehearses;
}

/** The fewest sets by which what is done fits, taken one by one from where most are, and last from what rehearses. */
function fewerSets(working: Working, most: number): Map<string, number> {
  const { reference } = working.prepared;
  const sets = new Map<string, number>();
  const own = (item: IdentifiedItem) => ({ ...item, sets: sets.get(item.id) ?? item.sets });
  const giving = done(working).filter(
    ({ id, drill, perSide }) => !perSide && !isLine(drill) && !working.undone.has(`short/${id}`),
  );
  while (routineSeconds(reference, done(working).map(own)) > most) {
    const [first] = giving
      .map(own)
      .filter((item) => item.sets > 1)
      .sort(
        (a, b) =>
          Number(rehearses(working, drillOf(working, a))) - Number(rehearses(working, drillOf(working, b))) ||
          b.sets - a.sets,
      );
    if (!first) break;
    sets.set(first.id, first.sets - 1);
  }
  return sets;
}

/** The line that goes next where sets alone do not save enough: the least worth for its time, Infinity for what is kept to the end. */
function leastMissed(
  working: Working,
  benefit: ReturnType<typeof benefitAmong>,
): { item: IdentifiedItem; worth: number } | null {
  const { prepared, undone } = working;
  const items = done(working);
  const all = benefit(items);
  const seconds = secondsOf(working);
  const alike = (is: (drill: Drill | null) => boolean) => items.filter((one) => is(drillOf(working, one)));
  const leads = prepared.safety.dayRules.filter(({ band }) => band === 'amber').map((rule) => rule.leads);
  const kept = [
    alike(warmsUp),
    alike((drill) => rehearses(working, drill)),
    ...leads.map((own) => alike((drill) => drill !== null && own.includes(drill.id))),
  ];
  const [missed] = items
    .filter(({ id }) => !undone.has(`dropped/${id}`))
    .map((item) => {
      const rest = items.filter((one) => one !== item);
      const saved = seconds - routineSeconds(prepared.reference, rest);
      // A coach who leads a part is not kept waiting for nothing.
      const worth = item.ledBy ? Infinity : (all - benefit(rest)) / Math.max(saved, 1);
      // The only warming, the only rehearsing and the only gentle drill of what hurts go when nothing else is left.
      const alone = kept.some((own) => own.length === 1 && own[0] === item);
      return { item, saved, worth: alone ? Infinity : worth };
    })
    .filter(({ saved }) => saved > 0)
    .sort((a, b) => a.worth - b.worth || b.saved - a.saved);
  return items.length > 1 && missed ? missed : null;
}

/** Warms by as many seconds less as there are too many, never by less than the least there is. */
function warmsShorter(working: Working, most: number, because: Reason): boolean {
  const over = secondsOf(working) - most;
  const warm = done(working).find(
    (item) =>
      item.measure === 'seconds' &&
      warmsUp(drillOf(working, item)) &&
      item.amount - over / item.sets >= CHECK_IN.leastWarming,
  );
  if (!warm) return false;
  const amount = Math.floor((warm.amount - over / warm.sets) / 5) * 5;
  return make(working, { id: `warming/${warm.id}`, kind: 'shorter', item: warm.id, because }, () =>
    replace(working, warm.id, (own) => ({ ...own, amount })),
  );
}

/** Fits what is done into the minutes there are today: sets first, then what is missed least; warming and rehearsing stay. */
function fitTime(working: Working): void {
  const { minutes } = working.said;
  if (minutes === null || minutes === undefined) return;
  const most = minutes * 60;
  const because: Reason = { rule: 'short-today', minutes };
  for (const [id, sets] of fewerSets(working, most))
    make(working, { id: `short/${id}`, kind: 'shorter', item: id, because }, () =>
      replace(working, id, (own) => ({ ...own, sets })),
    );
  const benefit = benefitAmong(working.prepared, done(working));
  while (secondsOf(working) > most) {
    const missed = leastMissed(working, benefit);
    if (missed?.worth === Infinity && warmsShorter(working, most, because)) return;
    const goes =
      missed !== null &&
      make(working, { id: `dropped/${missed.item.id}`, kind: 'out', item: missed.item.id, because }, () =>
        working.out.add(missed.item.id),
      );
    if (!goes) return;
  }
}

/**
 * Today's copy of a routine by what was said before the session: what the day keeps out is out, sore regions are eased, a gentle
 * drill comes first, the ramp is longer or shorter, the start quiet, the whole fits the place and the minutes. Nothing of it
 * adds load to a region that hurts. `prepared` is judged with the check-in in it; `undone` names what was put back.
 */
export function todaysCopy(
  prepared: Prepared,
  items: readonly IdentifiedItem[],
  said: CheckIn,
  undone: ReadonlySet<string> = new Set(),
): TodaysCopy {
  const working: Working = { prepared, said, undone, items: [...items], out: new Set(), changes: [] };
  const steps = [leaveOut, easeSore, fitPlace, easeTired, gentleFirst, calmStart, fitRamp, fitTime];
  for (const step of steps) step(working);
  return { items: working.items, out: working.out, changes: working.changes, seconds: secondsOf(working) };
}
