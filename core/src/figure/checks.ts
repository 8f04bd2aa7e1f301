import { cameraOf } from './camera.ts';
import { bodyAt } from './pose.ts';
import { listOf } from './schema.ts';
import type { FigureSource, SolvedFigure } from './schema.ts';
import { centreOfMass, middleOf, NUMBERS, RANGE, siteOf, sitesOf } from './skeleton.ts';
import type { Body } from './skeleton.ts';
import { contactsIn } from './solve.ts';
import { gapOf, placeOf, sizeOf, surfacesOf, within } from './surfaces.ts';
import { angleAt, between, dot, less, size } from './vector.ts';
import type { Vec } from './vector.ts';

/** Something wrong with a solved figure: what kind, and where. */
export interface FigureFault {
  readonly kind:
    | 'contact'
    | 'off-kit'
    | 'sunk'
    | 'behind-wall'
    | 'range'
    | 'balance'
    | 'intent'
    | 'no-motion'
    | 'foreshortened'
    | 'limb-through'
    | 'accent'
    | 'unused-kit'
    | 'numbers';
  readonly says: string;
}

/** How far a contact may be off, in u: two pixels of a large picture. */
const CONTACT = 0.8;
/** How far anything may be through the floor or a wall, in u. */
const THROUGH = 2.2;
/** How far outside its support the centre of mass may be where somebody stands, in u. */
const OUTSIDE = 5;
/** Least that a figure of several keys moves, in u; fingers and toes are small. */
const MOVES = { body: 3, hands: 1.5, feet: 0.9 } as const;
/** Least share of a working limb's length that is seen. */
const SEEN = 0.34;
/** How deep two limbs may be in each other, in u: who kneels on the heels has both shins pressed together. */
const INSIDE = 4;

const round = (value: number) => Math.round(value * 10) / 10;

function sunk(bodies: readonly Body[], figure: SolvedFigure): FigureFault[] {
  const walls = [...surfacesOf(figure.kit)].filter(([name]) => name === 'floor' || name.startsWith('wall'));
  const faults: FigureFault[] = [];
  for (const body of bodies)
    for (const [name, site] of Object.entries(body.sites))
      for (const [wall, surface] of walls) {
        const through = -gapOf({ ...site, radius: 0 }, surface);
        if (through > THROUGH)
          faults.push({
            kind: wall === 'floor' ? 'sunk' : 'behind-wall',
            says: `${name} by ${round(through)}`,
          });
      }
  return faults;
}

/** Distance of two segments, by sampling. */
function apart(a: Vec, b: Vec, c: Vec, d: Vec): number {
  let least = Infinity;
  for (let i = 0; i <= 8; i += 1)
    for (let j = 0; j <= 8; j += 1) {
      least = Math.min(least, size(less(between(a, b, i / 8), between(c, d, j / 8))));
    }
  return least;
}

/** Pairs of limbs that cannot be in one place, with what they measure together. */
const APART: readonly (readonly [string, string, string, string, number])[] = [
  ['kneeL', 'ankleL', 'kneeR', 'ankleR', 6.2],
  ['wristL', 'elbowL', 'wristR', 'elbowR', 4.8],
  ['kneeL', 'ankleL', 'wristR', 'elbowR', 5.6],
  ['kneeR', 'ankleR', 'wristL', 'elbowL', 5.6],
  ['neck', 'belly', 'wristL', 'elbowL', 8],
  ['neck', 'belly', 'wristR', 'elbowR', 8],
];

function through(bodies: readonly Body[]): FigureFault[] {
  return bodies.flatMap(({ sites }) =>
    APART.flatMap(([a, b, c, d, together]) => {
      const at = (name: string) => sites[name]?.at ?? [0, 0, 0];
      const deep = together - apart(at(a), at(b), at(c), at(d));
      return deep > INSIDE
        ? [{ kind: 'limb-through' as const, says: `${a}–${b} and ${c}–${d} by ${round(deep)}` }]
        : [];
    }),
  );
}

function ranges(poses: readonly (readonly number[])[]): FigureFault[] {
  return poses.flatMap((pose) =>
    pose.flatMap((value, i) => {
      const [low, high] = RANGE[i] ?? [0, 0];
      return value < low - 0.1 || value > high + 0.1
        ? [{ kind: 'range' as const, says: `${NUMBERS[i]} is ${value}` }]
        : [];
    }),
  );
}

/** Where somebody stands still, the centre of mass is over what they stand on. */
function balance(bodies: readonly Body[], source: FigureSource): FigureFault[] {
  if (!source.balance) return [];
  const still = bodies.length === 1 || source.keys.every(({ off }) => off === undefined);
  const body = bodies[source.shown ?? bodies.length - 1];
  const standing = Object.entries(source.on ?? {}).flatMap(([, names]) => listOf(names).flatMap(sitesOf));
  if (!still || !body || standing.length === 0) return [];
  const points = standing.map((name) => siteOf(body, name).at);
  const [xs, zs] = [points.map(([x]) => x), points.map(([, , z]) => z)];
  const [x, , z] = centreOfMass(body);
  const out = Math.max(Math.min(...xs) - x, x - Math.max(...xs), Math.min(...zs) - z, z - Math.max(...zs));
  return out > OUTSIDE ? [{ kind: 'balance', says: `by ${round(out)}` }] : [];
}

const TOWARDS: Readonly<Record<string, Vec>> = {
  ahead: [1, 0, 0],
  behind: [-1, 0, 0],
  above: [0, 1, 0],
  below: [0, -1, 0],
  right: [0, 0, 1],
  left: [0, 0, -1],
};

/** Where the chest looks, or where the head is from the pelvis, as the picture shows it. */
function seenTowards({ bones, sites }: Body, { view }: SolvedFigure, what: 'faces' | 'head'): string {
  const turn = bones['chest']?.turn;
  const [head, pelvis] = [sites['head'], sites['pelvis']];
  if (!turn || !head || !pelvis) return 'nowhere';
  const way: Vec = what === 'faces' ? [turn[0], turn[3], turn[6]] : less(head.at, pelvis.at);
  const camera = cameraOf(view);
  const [from, to] = [camera.see([0, 0, 0]), camera.see(way)];
  const all = [
    [to.x - from.x, 'right', 'left'],
    [to.y - from.y, 'down', 'up'],
    [to.near - from.near, 'us', 'away'],
  ] as const;
  const [by, more, other] = all.reduce((most, one) => (Math.abs(one[0]) > Math.abs(most[0]) ? one : most));
  return by > 0 ? more : other;
}

/** What the figure is meant to show: angles, what is ahead of or above what, what goes where. */
function intent(bodies: readonly Body[], figure: SolvedFigure, source: FigureSource): FigureFault[] {
  const { shown, accent } = figure;
  const body = bodies[shown];
  if (!body) return [];
  const wrong = (says: string): FigureFault[] => [{ kind: 'intent', says }];
  return (source.assert ?? []).flatMap((meant) => {
    if (meant.length === 5) {
      const [a, m, c, low, high] = meant;
      const angle = angleAt(middleOf(body, a), middleOf(body, m), middleOf(body, c));
      return angle < low || angle > high
        ? wrong(`${a}–${m}–${c} is ${round(angle)}, meant ${low} to ${high}`)
        : [];
    }
    if (meant.length === 2) {
      const [what, said] = meant;
      if (what === 'works') return accent.includes(said) ? [] : wrong(`${said} is not marked`);
      const now = seenTowards(body, figure, what);
      return now === said ? [] : wrong(`${what} ${now}, meant ${said}`);
    }
    const [a, word, b, least] = meant;
    const goes = word === 'goes';
    // Who goes somewhere leaves where it was at the start, or at the end where the start is what is shown.
    const from = goes ? middleOf(bodies[shown === 0 ? bodies.length - 1 : 0] ?? body, a) : middleOf(body, b);
    const by = dot(less(middleOf(body, a), from), TOWARDS[goes ? b : word] ?? [0, 0, 0]);
    return by < least ? wrong(`${a} ${word} ${b} by ${round(by)}, meant ${least}`) : [];
  });
}

const LIMB = {
  armL: ['shoulderL', 'wristL'],
  armR: ['shoulderR', 'wristR'],
  legL: ['hipL', 'ankleL'],
  legR: ['hipR', 'ankleR'],
} as const;

/** A limb that works is seen, and it moves or bears something. */
function working(bodies: readonly Body[], figure: SolvedFigure, source: FigureSource): FigureFault[] {
  const camera = cameraOf(figure.view);
  const shown = bodies[figure.shown];
  if (!shown || figure.rig !== 'body') return [];
  const bearing = new Set(
    [...Object.values(source.on ?? {}), ...source.keys.flatMap(({ on }) => Object.values(on ?? {}))].flatMap(
      (names) => listOf(names).flatMap(sitesOf),
    ),
  );
  for (const name of [...Object.keys(source.at ?? {}), ...(source.touch ?? []).flatMap(([a, b]) => [a, b])])
    for (const site of sitesOf(name)) bearing.add(site);
  return figure.accent.flatMap((part): FigureFault[] => {
    if (!(part in LIMB)) return [];
    const [from, to] = LIMB[part as keyof typeof LIMB];
    const end = (name: string): Vec => shown.sites[name]?.at ?? [0, 0, 0];
    const [p, q] = [camera.see(end(from)), camera.see(end(to))];
    const seen = Math.hypot(p.x - q.x, p.y - q.y) / Math.max(1, size(less(end(from), end(to))));
    const side = part.slice(-1);
    const goes = (name: string) =>
      bodies.some(
        ({ sites }) => size(less(sites[name]?.at ?? [0, 0, 0], bodies[0]?.sites[name]?.at ?? [0, 0, 0])) > 2,
      );
    const moves = goes(from) || goes(to);
    const bears = [...bearing].some((name) => name.endsWith(side));
    // Who runs or jumps is shown in the middle of it; an arrow at a limb says what it does, at one of two for both.
    const both = figure.accent.includes(`${part.slice(0, -1)}${side === 'L' ? 'R' : 'L'}` as never);
    const marked = figure.marks.some(
      (mark) =>
        'path' in mark ||
        JSON.stringify(mark).includes(`${side}"`) ||
        (both && /[LR]"/.test(JSON.stringify(mark))),
    );
    return [
      ...(seen < SEEN
        ? [{ kind: 'foreshortened' as const, says: `${part} to ${Math.round(seen * 100)} %` }]
        : []),
      ...(moves || bears || marked
        ? []
        : [{ kind: 'accent' as const, says: `${part} neither moves nor bears` }]),
    ];
  });
}

function motion(bodies: readonly Body[], rig: SolvedFigure['rig']): FigureFault[] {
  const [first] = bodies;
  if (bodies.length < 2 || !first) return [];
  const most = Math.max(
    ...bodies.flatMap((body) =>
      Object.entries(body.sites).map(([name, { at }]) => size(less(at, first.sites[name]?.at ?? at))),
    ),
  );
  return most < MOVES[rig] ? [{ kind: 'no-motion', says: `at most ${round(most)}` }] : [];
}

/** What stands in the room is near somebody: a box that nobody touches is in the wrong place. */
function unused(bodies: readonly Body[], { kit, rig }: SolvedFigure): FigureFault[] {
  if (rig !== 'body') return [];
  return kit.flatMap((one): FigureFault[] => {
    if (!['box', 'step', 'bench', 'chair', 'roller', 'ball', 'bar', 'bike'].includes(one.type) || one.side)
      return [];
    const at = placeOf(one);
    const half = Math.max(...sizeOf(one)) / 2;
    const least = Math.min(
      ...bodies.flatMap(({ sites }) =>
        Object.values(sites).map((site) =>
          Math.hypot(
            site.at[0] - at[0],
            one.type === 'ball' || one.type === 'bar' ? site.at[1] - at[1] : 0,
            site.at[2] - at[2],
          ),
        ),
      ),
    );
    return least > half + 16 ? [{ kind: 'unused-kit', says: `${one.type} is ${round(least)} away` }] : [];
  });
}

/** Everything that is wrong with a solved figure, against what was written. */
export function faultsOf(figure: SolvedFigure, source: FigureSource): FigureFault[] {
  const wrong = figure.poses.some((pose) => pose.some((value) => !Number.isFinite(value)));
  if (wrong) return [{ kind: 'numbers', says: 'a number is none' }];
  const bodies = figure.poses.map((pose) => bodyAt(figure, pose));
  const contacts = figure.rig === 'body' ? contactsIn(source, figure.poses) : [];
  const off = Math.max(0, ...contacts.map((one) => one.off));
  const contact: FigureFault[] = off > CONTACT ? [{ kind: 'contact', says: `off by ${round(off)}` }] : [];
  const beside = contacts.flatMap(({ on }, key) =>
    [...on].flatMap(([site, surface]): FigureFault[] => {
      const at = bodies[key]?.sites[site]?.at;
      return at && !within(figure.kit, surface, at)
        ? [{ kind: 'off-kit', says: `${site} is beside the ${surface}` }]
        : [];
    }),
  );
  const own: FigureFault[] =
    figure.rig === 'body'
      ? [...sunk(bodies, figure), ...through(bodies), ...ranges(figure.poses), ...balance(bodies, source)]
      : [];
  return [
    ...contact,
    ...beside,
    ...own,
    ...intent(bodies, figure, source),
    ...motion(bodies, figure.rig),
    ...working(bodies, figure, source),
    ...unused(bodies, figure),
  ];
}
