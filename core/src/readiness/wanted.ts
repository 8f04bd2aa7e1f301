import type { Region } from '../domain/index.ts';
import type { Drill, ReadinessElement, Reference } from '../reference/index.ts';

/** How well a drill answers an element, 0–1: by its own name, else by its ladder. */
export function fitOf(element: ReadinessElement, { id, ladder }: Pick<Drill, 'id' | 'ladder'>): number {
  return element.drills[id] ?? element.ladders[ladder] ?? 0;
}

/** From this fit a drill answers an element; from the lower one in part (judgement). */
export const FIT = { good: 0.7, half: 0.4 } as const;

/** How many elements of the actions are wanted, from so many minutes on (judgement). */
const WANTED_FROM: readonly (readonly [minutes: number, elements: number])[] = [
  [20, 9],
  [16, 8],
  [12, 7],
  [10, 6],
  [8, 5],
  [6, 4],
  [0, 3],
];
/** How many elements of each joint to look after are wanted, from so many minutes on (judgement). */
const OF_A_JOINT: readonly (readonly [minutes: number, elements: number])[] = [
  [15, 3],
  [10, 2],
  [0, 1],
];
/** How many joints a session of its own and an end look after where none is named, and how much of each (judgement). */
const TRAINED = { build: { joints: 3, each: 5 }, restore: { joints: 4, each: 3 } } as const;
/** What a session of its own works on, in the order of what it is for. */
const WORKING = ['wake', 'brace', 'absorb', 'drive', 'steer', 'open'] as const;
const from = (steps: readonly (readonly [number, number])[], minutes: number): number =>
  steps.find(([least]) => minutes >= least)?.[1] ?? 0;

/** What the actions ask for first comes before the joints to look after, the rest after them. */
const BEFORE_JOINTS = 3;
/** Warming and rehearsing. */
const FIRST = 2;

/** Younger than this a preparation is games of feet, as long as nothing hurts (judgement). */
export const GAMES_UNDER = 14;
/** The rank of a rehearsal of an action that is not the day's first, from so many minutes on and in less (judgement). */
const LATER_REHEARSAL = { from: 12, rank: 2, short: 3 } as const;

/** What decides what is wanted of a routine, beside what was found. */
export interface ReadinessFor {
  /** Actions that follow, the day's first. */
  readonly actions: readonly string[];
  /** The athlete's tasks that belong to them, in the order in which they were named. */
  readonly tasks: readonly string[];
  readonly mode: 'prepare' | 'build' | 'restore';
  readonly minutes: number;
  /** Joints named for today; empty for all. */
  readonly focus: readonly Region[];
  /** Joints to look after where none is named: injured of late, and but for a preparation what was found short. */
  readonly joints: readonly Region[];
  readonly age: number;
  readonly kit: readonly string[];
}

/** An element that a routine should hold, and who asks for it. */
export interface WantedElement {
  readonly element: ReadinessElement;
  readonly of: 'action' | 'joint';
  /** Comes before everything else: warming, rehearsing, coming down, the first of each joint. */
  readonly first: boolean;
}

interface Placed {
  readonly element: ReadinessElement;
  readonly rank: number;
  /** Which of its task or action it is within the rank: all have their first before any has its second. */
  readonly turn: number;
}

/** Does an element hold on a day like this? */
function holds({ when }: ReadinessElement, { minutes, age, kit, focus }: ReadinessFor): boolean {
  return (
    minutes >= (when.from ?? 0) &&
    (when.over === undefined || age > when.over) &&
    (when.under === undefined || age < when.under) &&
    (when.kit === undefined || when.kit.some((one) => kit.includes(one))) &&
    (when.focus === undefined || when.focus.some((region) => focus.includes(region)))
  );
}

/** The elements of one task or action, each with its turn within its rank. */
function inTurns(
  elements: readonly ReadinessElement[],
  rankOf: (element: ReadinessElement) => number,
): Placed[] {
  const before = new Map<number, number>();
  return elements.map((element) => {
    const rank = rankOf(element);
    const turn = before.get(rank) ?? 0;
    before.set(rank, turn + 1);
    return { element, rank, turn };
  });
}

/** The first element of each need. */
const oncePerNeed = (elements: readonly ReadinessElement[]): ReadinessElement[] =>
  elements.filter(({ need }, place) => elements.findIndex((one) => one.need === need) === place);

/** In the order of their ranks and turns, one element for each need. */
function inOrder(placed: readonly Placed[]): ReadinessElement[] {
  const ranked = [...placed].sort((a, b) => a.rank - b.rank || a.turn - b.turn);
  return oncePerNeed(ranked.map(({ element }) => element));
}

/**
 * What the actions ask for by rank: within a rank the tasks' additions and the actions in turn, in the order in which the
 * tasks were named. Only the first action's rehearsal comes with warming; the others follow it where there is time.
 */
function ofActions(
  { data: { readiness } }: Reference,
  { actions, tasks, minutes }: ReadinessFor,
): ReadinessElement[] {
  const profileOf = (action: string) =>
    readiness.profiles.find((one) => one.action === action)?.elements ?? [];
  const own = tasks.flatMap((task) => readiness.tasks.find((one) => one.task === task) ?? []);
  const lifts = new Map(own.flatMap(({ lifts: ranks }) => Object.entries(ranks)));
  const known = actions.filter((action) => profileOf(action).length > 0);
  const followed = known.length > 0 ? known : ['general'];
  const later = minutes >= LATER_REHEARSAL.from ? LATER_REHEARSAL.rank : LATER_REHEARSAL.short;
  return inOrder([
    ...own.flatMap(({ adds }) => inTurns(adds, ({ rank }) => rank)),
    ...followed.flatMap((action, place) => {
      const elements = profileOf(action);
      const last = ({ part }: ReadinessElement) => place > 0 && part === 'rehearse';
      const ordered = [...elements.filter(last), ...elements.filter((one) => !last(one))];
      return inTurns(ordered, (one) => lifts.get(one.id) ?? (last(one) ? later : one.rank));
    }),
  ]);
}

/** Games of feet for the youngest, and of each action what stays for a child. */
function forChildren(reference: Reference, given: ReadinessFor): ReadinessElement[] {
  const { profiles, youth } = reference.data.readiness;
  const games = profiles.find(({ action }) => action === 'youth')?.elements ?? [];
  const kept = new Set(given.actions.flatMap((action) => youth.keep[action] ?? []));
  const own = ofActions(reference, given).filter(({ id }) => kept.has(id));
  const [rehearsal] = own.filter(({ part }) => part === 'rehearse');
  return [
    ...games.map((element) => (element.part === 'rehearse' && rehearsal ? rehearsal : element)),
    ...own.filter(({ part }) => part !== 'rehearse' && part !== 'warm'),
  ];
}

/**
 * A named joint keeps of the actions what lies in it, warming and, where something follows, rehearsing it; one alone is
 * warmed by what uses it standing.
 */
function within(reference: Reference, elements: readonly ReadinessElement[], given: ReadinessFor) {
  const { focus, actions } = given;
  if (focus.length === 0) return elements;
  const own = elements.filter(
    ({ part, regions }) =>
      part === 'warm' ||
      (part === 'rehearse' && actions.length > 0) ||
      regions.some((region) => focus.includes(region)),
  );
  const [warm, ...more] = reference.data.readiness.focusWarm.filter((one) => holds(one, given));
  if (!warm || more.length > 0 || focus.length > 1) return own;
  return [warm, ...own.filter(({ part }) => part !== 'warm')];
}

/** What looking after joints asks for, joint by joint in turn, once each: these parts in this order, or all but what is for after a session. */
function inTurn(
  { data: { readiness } }: Reference,
  regions: readonly Region[],
  each: number,
  parts: readonly ReadinessElement['part'][] | null,
): ReadinessElement[] {
  const lists = regions.map((region) => {
    const all = readiness.joints.find((one) => one.region === region)?.elements ?? [];
    const here = parts
      ? parts.flatMap((wanted) => all.filter(({ part }) => part === wanted))
      : all.filter(({ part }) => part !== 'after');
    return here.slice(0, each);
  });
  return oncePerNeed(Array.from({ length: each }, (_, i) => lists.flatMap((list) => list[i] ?? [])).flat());
}

/** The joints named for today, else those to look after, else those that the actions work first. */
function regionsToTrain(reference: Reference, given: ReadinessFor, most: number): Region[] {
  const { focus, joints } = given;
  const [named = []] = [focus, joints].filter((regions) => regions.length > 0);
  if (named.length > 0) return named.slice(0, most);
  const worked = ofActions(reference, given).flatMap(({ part, regions: [region] }) =>
    part === 'warm' || part === 'rehearse' || region === undefined ? [] : [region],
  );
  return [...new Set(worked)].filter((region) => region !== 'whole-body').slice(0, most);
}

/** What actions ask for: the first places are warming and rehearsing, at an end coming down and calm. */
const ofAction = (element: ReadinessElement, place: number): WantedElement => ({
  element,
  of: 'action',
  first: place < FIRST,
});

/** What joints ask for, in turn: each has its first. */
const ofJoint = (
  element: ReadinessElement,
  place: number,
  all: readonly ReadinessElement[],
): WantedElement => ({
  element,
  of: 'joint',
  first: all.findIndex(({ regions: [region] }) => region === element.regions[0]) === place,
});

/** Before activity: what the actions ask for by rank, the joints to look after behind the first of it. */
function forPreparing(reference: Reference, given: ReadinessFor): WantedElement[] {
  const { minutes, age, focus } = given;
  const all = age < GAMES_UNDER ? forChildren(reference, given) : ofActions(reference, given);
  const most = from(WANTED_FROM, minutes);
  const regions = focus.length > 0 ? focus : given.joints;
  const joints = inTurn(reference, regions, from(OF_A_JOINT, minutes), null);
  // What a joint asks for anyhow, the actions do not ask for once more.
  const actions = within(reference, all, given)
    .filter((one) => holds(one, given) && !joints.some(({ need }) => need === one.need))
    .slice(0, most)
    .map(ofAction);
  // Half of what joints ask for takes the place of what the actions ask for last.
  return [...actions.slice(0, BEFORE_JOINTS), ...joints.map(ofJoint), ...actions.slice(BEFORE_JOINTS)].slice(
    0,
    most + Math.ceil(joints.length / 2),
  );
}

/** In a session of its own: what warms the joints that are trained, and what looking after them asks for. */
function forBuilding(reference: Reference, given: ReadinessFor): WantedElement[] {
  const regions = regionsToTrain(reference, given, TRAINED.build.joints);
  const own = { ...given, focus: regions.length === 1 ? regions : [] };
  const warm = within(reference, ofActions(reference, own), own).filter(({ part }) => part === 'warm');
  const joints = inTurn(reference, regions, TRAINED.build.each, WORKING);
  return [...warm.slice(0, 1).map(ofAction), ...joints.map(ofJoint)].slice(
    0,
    from(WANTED_FROM, given.minutes),
  );
}

/** After activity: what every end asks for, and what lets go of what was worked. */
function forEnding(reference: Reference, given: ReadinessFor): WantedElement[] {
  const regions = regionsToTrain(reference, given, TRAINED.restore.joints);
  const joints = inTurn(reference, regions, TRAINED.restore.each, ['after']);
  return [...reference.data.readiness.after.map(ofAction), ...joints.map(ofJoint)].slice(
    0,
    from(WANTED_FROM, given.minutes),
  );
}

const FOR = { prepare: forPreparing, build: forBuilding, restore: forEnding } as const;

/** What a routine should hold, most important first, more of it the more minutes there are. */
export function wantedElements(reference: Reference, given: ReadinessFor): WantedElement[] {
  return FOR[given.mode](reference, given);
}
