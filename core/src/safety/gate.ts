import { addDays, ageInYears, monthsBefore, REGIONS } from '../domain/index.ts';
import type { Athlete, IsoDay, Region } from '../domain/index.ts';
import type { RedFlag, Reference } from '../reference/index.ts';

/** Stop-and-refer signs that are read out and answered together: a general group, or those of one region. */
export interface GateTopic {
  /** Id of the general group, or the region. */
  readonly id: string;
  readonly region: Region | null;
  readonly title: string;
  /** What has happened when something of it is new at a visit. */
  readonly news: string;
  readonly ask: string;
  /** The answer that says none of the signs is there; not always the same, so that nobody answers unread. */
  readonly expects: 'yes' | 'no';
  /** Each sign with a short form to read aloud; the full question stands in the sign. */
  readonly signs: readonly { readonly sign: RedFlag; readonly short: string }[];
}

function asksAt(sign: RedFlag, age: number): boolean {
  return (sign.ageMin === null || age >= sign.ageMin) && (sign.ageMax === null || age <= sign.ageMax);
}

/** The general groups for an age in years, in the order they are asked. */
function generalTopics(reference: Reference, age: number): GateTopic[] {
  return reference.data.gate.flatMap((group): GateTopic[] => {
    const signs = Object.entries(group.signs).flatMap(([id, short]) => {
      const sign = reference.redFlags.get(id);
      return sign && asksAt(sign, age) ? [{ sign, short }] : [];
    });
    return signs.length > 0 ? [{ ...group, region: null, signs }] : [];
  });
}

function regionTopic(reference: Reference, region: Region, age: number): GateTopic[] {
  const signs = reference.data.redFlags
    .filter((sign) => sign.scope === region && asksAt(sign, age))
    .map((sign) => ({ sign, short: sign.question }));
  const title = reference.regions.get(region)?.name ?? region;
  const ask = `Anything of this, ${title.toLowerCase()}?`;
  return signs.length > 0 ? [{ id: region, region, title, news: title, ask, expects: 'no', signs }] : [];
}

/** Everything that is asked before work on these regions: the general groups, then each region once. */
export function gateTopics(
  reference: Reference,
  regions: readonly Region[],
  birthDate: IsoDay,
  today: IsoDay,
): GateTopic[] {
  const age = ageInYears(birthDate, today);
  return [
    ...generalTopics(reference, age),
    ...REGIONS.filter((r) => regions.includes(r)).flatMap((region) => regionTopic(reference, region, age)),
  ];
}

/** Last day on which an answer of a day holds: the day before the next season starts (`starts` is MM-DD). */
export function seasonEnd(day: IsoDay, starts: string): IsoDay {
  const year = Number(day.slice(0, 4));
  const next = day.slice(5) < starts ? year : year + 1;
  return addDays(`${next}-${starts}`, -1);
}

/**
 * The newest answer to a topic that holds on a day; null when it has to be asked. An answer given later holds for
 * work of an earlier day that is written down afterwards; none holds for a sign that was not read out then.
 */
export function answerHolding(
  asked: NonNullable<Athlete['asked']>,
  topic: { readonly id: string; readonly signs: readonly { readonly sign: { readonly id: string } }[] },
  day: IsoDay,
): NonNullable<Athlete['asked']>[number] | null {
  const holding = asked.filter(
    ({ topic: id, until, signs }) =>
      id === topic.id && until >= day && topic.signs.every(({ sign }) => signs?.includes(sign.id) ?? true),
  );
  return holding.sort((a, b) => (a.on < b.on ? 1 : -1))[0] ?? null;
}

/** Topics of these regions that have to be asked before anything is done there on a day. */
export function topicsDue(
  reference: Reference,
  athlete: Athlete,
  regions: readonly Region[],
  day: IsoDay,
): GateTopic[] {
  const { asked } = athlete;
  if (asked === null) return [];
  return gateTopics(reference, regions, athlete.birthDate, day).filter(
    (topic) => !answerHolding(asked, topic, day),
  );
}

/** Why a region is asked about. */
export interface RegionInPlay {
  readonly region: Region;
  readonly because: 'task' | 'injury' | 'pain';
  /** The task's id, or the day of the injury or pain. */
  readonly about: string;
}

/** Months for which an injury keeps its region in play. */
const INJURY_MONTHS = 24;

/** Regions that the sport, an injury of two years or a pain of today brings into play, along the chain. */
export function regionsInPlay(reference: Reference, athlete: Athlete, day: IsoDay): RegionInPlay[] {
  const found = new Map<Region, RegionInPlay>();
  const add = (region: Region, because: RegionInPlay['because'], about: string) => {
    if (region !== 'whole-body' && !found.has(region)) found.set(region, { region, because, about });
  };
  for (const pain of athlete.pains)
    if (pain.since <= day && (pain.ended === null || pain.ended > day)) add(pain.region, 'pain', pain.since);
  for (const injury of athlete.injuries)
    if (injury.date >= monthsBefore(day, INJURY_MONTHS)) add(injury.region, 'injury', injury.date);
  for (const { id } of athlete.tasks)
    for (const { test } of reference.demands.get(id)?.demands ?? []) {
      const region = reference.tests.get(test)?.region;
      if (region) add(region, 'task', id);
    }
  return REGIONS.flatMap((region) => found.get(region) ?? []);
}

/** Topics that have to be asked before drills may be done: the general ones, and the regions each is for. */
export function topicsDueFor(
  reference: Reference,
  athlete: Athlete,
  drills: readonly string[],
  day: IsoDay,
): { general: GateTopic[]; ofDrill: ReadonlyMap<string, GateTopic> } {
  const due = topicsDue(reference, athlete, REGIONS, day);
  const ofDrill = new Map<string, GateTopic>();
  for (const id of drills) {
    const drill = reference.drills.get(id);
    const topic = drill && due.find((t) => t.region && drill.regions.primary.includes(t.region));
    if (topic) ofDrill.set(id, topic);
  }
  return { general: due.filter((topic) => topic.region === null), ofDrill };
}
