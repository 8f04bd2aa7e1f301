import { FIT, fitOf, GAMES_UNDER } from '../readiness/index.ts';
import type { BuildReport, BuiltItem } from '../builder/index.ts';
import { ageInYears } from '../domain/index.ts';
import type { Case } from '../domain/index.ts';
import type { Finding } from '../findings/index.ts';
import { actionsOfDay } from '../builder/dayActions.ts';
import { patternTag, rehearsalTag } from '../reference/index.ts';
import type { Drill, Reference } from '../reference/index.ts';

type Placed = BuiltItem & { readonly known: Drill };

/** A routine that the engine built on its own, with what it was asked. */
interface Built {
  readonly reference: Reference;
  readonly input: Case;
  readonly report: BuildReport;
  readonly findings: readonly Finding[];
  readonly items: readonly Placed[];
  readonly seconds: number;
  readonly actions: readonly string[];
}

type House = Readonly<Record<string, (built: Built) => string | null>>;

const sum = (items: readonly Placed[]) => items.reduce((all, { seconds }) => all + seconds, 0);
const mean = (items: readonly Placed[]) =>
  items.reduce((all, { known }) => all + known.demandIndex, 0) / Math.max(1, items.length);
const names = (items: readonly Placed[]) => items.map(({ drill }) => drill).join(', ');
const trained = ({ athlete }: Case) => athlete.trainingYears >= 2 || athlete.exposure.length > 0;

/** Rules that hold for every preparation: what a practitioner would change first. Each gives null or what falls short. */
const HOUSE: House = {
  minutes: ({ report, seconds }) => {
    const used = report.routine?.totalSeconds ?? 0;
    if (used > seconds) return `${used} of ${seconds} s`;
    const said = (report.unused?.because.length ?? 0) > 0;
    return used >= 0.85 * seconds || (said && used >= 0.6 * seconds)
      ? null
      : `uses ${used} of ${seconds} s${said ? '' : ' without a word'}`;
  },
  'one drill': ({ items, seconds }) => {
    const most = Math.max(75, Math.min(0.25 * seconds, 180));
    const long = items.filter((item) => item.seconds > most + 1);
    return long.length > 0 ? `over ${Math.round(most)} s: ${names(long)}` : null;
  },
  warms: ({ items, seconds }) => {
    const has = sum(items.filter(({ known }) => known.raisesTemperature >= 2 || known.category === 'raise'));
    const share = 0.12 + 0.03 * Math.min(1, Math.max(0, (seconds - 480) / 240));
    const wanted = Math.min(240, share * seconds);
    return has >= 0.9 * wanted ? null : `warms ${has} of ${Math.round(wanted)} s`;
  },
  'starts easy': ({ items: [first], input }) =>
    first &&
    ['raise', 'release', 'mobilise', 'activate'].includes(first.known.category) &&
    first.known.demandIndex <= (trained(input) ? 5 : 3)
      ? null
      : `starts with ${first?.drill ?? 'nothing'}`,
  'ends with what follows': ({ reference, items, actions, input, seconds }) => {
    if (actions.length === 0) return null;
    const plain = !trained(input) || seconds <= 360;
    const last = items.filter(({ known }) => known.category !== 'stretch').slice(-2);
    const rehearses = ({ known }: Placed) =>
      (known.ladder !== 'sport-rehearsal' || plain) &&
      actions.some((action) => rehearsalTag(reference, known, action) >= 0.7);
    return last.some(rehearses) ? null : `ends with ${names(last)}`;
  },
  'nothing foreign': ({ reference, items, actions, input }) => {
    const { profiles, tasks, joints } = reference.data.readiness;
    const own = new Set(input.athlete.tasks.map(({ id }) => id));
    const child = ageInYears(input.athlete.birthDate, input.today) < GAMES_UNDER;
    const followed = [...(actions.length > 0 ? actions : ['general']), ...(child ? ['youth'] : [])];
    const lookedAfter = new Set(input.athlete.injuries.map(({ region }) => region));
    const elements = [
      ...profiles.filter(({ action }) => followed.includes(action)).flatMap((one) => one.elements),
      ...tasks.filter(({ task }) => own.has(task)).flatMap(({ adds }) => adds),
      ...joints.filter(({ region }) => lookedAfter.has(region)).flatMap((one) => one.elements),
    ];
    const asked = new Set(
      items.flatMap(({ serves }) => serves.map((s) => reference.restrictions.get(s.restriction)?.region)),
    );
    for (const region of input.request.focus) asked.add(region);
    const foreign = items.filter(
      ({ known, serves }) =>
        known.category !== 'raise' &&
        serves.length === 0 &&
        !known.regions.primary.some((region) => region === 'whole-body' || asked.has(region)) &&
        !elements.some((element) => fitOf(element, known) >= FIT.half) &&
        !actions.some((action) => patternTag(reference, known, action) >= 0.6),
    );
    return foreign.length > 0 ? names(foreign) : null;
  },
  rises: ({ items }) => {
    if (items.length < 3) return null;
    const third = Math.max(1, Math.floor(items.length / 3));
    const start = items.slice(0, third).filter(({ known }) => known.category !== 'raise');
    const end = items.filter(({ known }) => known.category !== 'stretch').slice(-third);
    return start.length === 0 || mean(end) >= mean(start) - 0.5 ? null : 'the end is easier than the start';
  },
  'answers or says why': ({ findings, items, report }) => {
    const silent = findings.filter(
      ({ severity, restriction, side }) =>
        severity >= 0.2 &&
        !items.some(({ serves }) => serves.some((s) => s.restriction === restriction && s.side === side)) &&
        !report.unserved.some((one) => one.restriction === restriction && one.side === side),
    );
    return silent.length > 0 ? silent.map((f) => `${f.restriction} ${f.side}`).join(', ') : null;
  },
  'two of a ladder': ({ items }) => {
    const count = new Map<string, number>();
    for (const { known } of items) count.set(known.ladder, (count.get(known.ladder) ?? 0) + 1);
    return Math.max(0, ...count.values()) > 2 ? 'three of one ladder' : null;
  },
  'nobody’s pain': ({ items, input }) => {
    if (input.athlete.pains.length + input.athlete.injuries.length > 0) return null;
    const idle = items.filter(
      ({ serves }) => serves.length > 0 && serves.every((s) => s.restriction.endsWith('-irritability')),
    );
    return idle.length > 0 ? names(idle) : null;
  },
};

/** What of the house rules a preparation breaks, "rule: what falls short"; empty when it keeps them all. */
export function houseFaults(
  reference: Reference,
  input: Case,
  report: BuildReport,
  findings: readonly Finding[],
): string[] {
  const { minutes } = input.request;
  const built: Built = {
    reference,
    input,
    report,
    findings,
    items: (report.routine?.items ?? []).flatMap((item) => {
      const known = reference.drills.get(item.drill);
      return known ? [{ ...item, known }] : [];
    }),
    seconds: (minutes ?? 10) * 60,
    actions: actionsOfDay(reference, { athlete: input.athlete }, input.request),
  };
  if (built.items.length === 0) return ['routine: none'];
  return Object.entries(HOUSE).flatMap(([name, rule]) => {
    const fault = rule(built);
    return fault === null ? [] : [`${name}: ${fault}`];
  });
}

/** A trained adult who prepares for one task, with or without three findings, with or without kit. */
export interface Preparation {
  readonly task: string;
  readonly minutes: number;
  readonly findings: boolean;
  readonly kit: boolean;
}

const USUAL_KIT = ['wall', 'long-band', 'step', 'ball', 'small-ball', 'pull-up-bar', 'sport-gear'];

/** Every task of the reference for 5, 10 and 20 minutes, unscreened and with three findings, without kit and with the usual. */
export function preparations(reference: Reference): Preparation[] {
  const yesNo = [false, true];
  return reference.data.demands.flatMap(({ id: task }) =>
    [5, 10, 20].flatMap((minutes) =>
      yesNo.flatMap((findings) => yesNo.map((kit) => ({ task, minutes, findings, kit }))),
    ),
  );
}

/** The part of a case that a preparation asks for; its three findings are seen by eye in what the task asks first. */
export function preparationCase(reference: Reference, { task, minutes, findings, kit }: Preparation) {
  const demands = reference.demands.get(task)?.demands ?? [];
  const asked = [...new Set(demands.flatMap(({ informs }) => informs))].filter(
    (id) => reference.restrictions.get(id)?.kind !== 'load-tolerance',
  );
  return {
    athlete: { trainingYears: 4, tasks: [{ id: task, lead: 'either' as const }] },
    judgements: (findings ? asked.slice(0, 3) : []).map((restriction) => ({
      restriction,
      side:
        reference.restrictions.get(restriction)?.laterality === 'central'
          ? ('central' as const)
          : ('left' as const),
      verdict: 'seen' as const,
      degree: 'clear' as const,
      reason: '',
      by: 'R. Halloran',
      date: '2027-02-27',
    })),
    request: { mode: 'prepare', minutes, kit: kit ? USUAL_KIT : [] } as never,
  };
}
