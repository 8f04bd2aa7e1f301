import {
  bodyOf,
  centreOfMass,
  middleOf,
  NUMBERS,
  placesOf,
  poseOf,
  RANGE,
  siteOf,
  sitesOf,
  written,
} from './skeleton.ts';
import type { Body, Pose } from './skeleton.ts';
import { gapOf, surfacesOf } from './surfaces.ts';
import type { Surface } from './surfaces.ts';
import { listOf } from './schema.ts';
import type { FigureSource, Kit } from './schema.ts';
import { between, cross, less, size, unit } from './vector.ts';
import type { Vec } from './vector.ts';

type Loose = readonly [number | null, number | null, number | null];

/** Everything that has to hold in one key. */
export interface Contacts {
  /** Place: the surface that it lies on. */
  readonly on: Map<string, string>;
  /** Place: where it is. */
  readonly at: Map<string, Loose>;
  readonly touch: (readonly [string, string, number?])[];
  readonly aim: (readonly [string, string, Vec])[];
  readonly line: (readonly [string, string, string])[];
  balance: boolean;
  /** Place: where it is wanted, as far as everything else lets it. */
  readonly wish?: ReadonlyMap<string, Vec>;
}

/** Contacts that ask for nothing. */
export const nothingHeld = (): Contacts => ({
  on: new Map(),
  at: new Map(),
  touch: [],
  aim: [],
  line: [],
  balance: false,
});

const WEIGHT = { contact: 14, aim: 140, below: 14, balance: 3, wish: 2 } as const;
/** How much each number resists being moved from where it was written. */
const priorOf = (name: string): number =>
  name.startsWith('root.')
    ? /[xyz]$/.test(name)
      ? 0.01
      : 0.12
    : /^(?:spine|chest|neck)/.test(name)
      ? 0.2
      : 0.1;
/** How much each number resists, in the order of {@link NUMBERS}. */
export const PRIOR: readonly number[] = NUMBERS.map(priorOf);
const STEP = 25;
const ROUNDS = 40;

/** Contacts after a change: what is said anew of a place takes the place of what was said of it. */
function changed(before: Contacts, change: FigureSource['keys'][0]): Contacts {
  const on = new Map(before.on);
  const at = new Map(before.at);
  let touch = [...before.touch];
  for (const site of listOf(change.off).flatMap(sitesOf)) {
    on.delete(site);
    at.delete(site);
    touch = touch.filter(([a, b]) => a !== site && b !== site);
  }
  for (const [surface, names] of Object.entries(change.on ?? {}))
    for (const site of listOf(names).flatMap(sitesOf)) on.set(site, surface);
  for (const [name, point] of Object.entries(change.at ?? {}))
    for (const site of sitesOf(name)) at.set(site, point);
  return {
    on,
    at,
    touch: [...touch, ...((change.touch ?? []) as [string, string, number?][])],
    aim: [...(change.aim ? [] : before.aim), ...((change.aim ?? []) as [string, string, Vec][])],
    line: [...(change.line ? [] : before.line), ...(change.line ?? [])],
    balance: change.balance ?? before.balance,
  };
}

/** How far each contact is from holding, in u times its weight. */
function residuals(
  body: Body,
  contacts: Contacts,
  surfaces: ReadonlyMap<string, Surface>,
  walls: readonly Surface[],
): number[] {
  const out: number[] = [];
  const surfaceOf = (name: string) => {
    const surface = surfaces.get(name);
    if (!surface) throw new Error(`nothing here is called "${name}"`);
    return surface;
  };
  for (const [site, name] of contacts.on)
    out.push(WEIGHT.contact * gapOf(siteOf(body, site), surfaceOf(name)));
  for (const [name, point] of contacts.at) {
    const { at } = siteOf(body, name);
    point.forEach((wanted, i) => wanted !== null && out.push(WEIGHT.contact * ((at[i] ?? 0) - wanted)));
  }
  for (const [name, wanted] of contacts.wish ?? []) {
    const { at } = siteOf(body, name);
    for (let i = 0; i < 3; i += 1) out.push(WEIGHT.wish * ((at[i] ?? 0) - (wanted[i] ?? 0)));
  }
  for (const [a, b, gap] of contacts.touch) {
    const [one, other] = [siteOf(body, a), siteOf(body, b)];
    out.push(WEIGHT.contact * (size(less(one.at, other.at)) - (gap ?? one.radius + other.radius)));
  }
  for (const [a, b, direction] of contacts.aim) {
    const now = unit(less(siteOf(body, b).at, siteOf(body, a).at));
    const meant = unit(direction);
    for (let i = 0; i < 3; i += 1) out.push(WEIGHT.aim * ((now[i] ?? 0) - (meant[i] ?? 0)));
  }
  for (const [a, middle, c] of contacts.line) {
    const [from, at, to] = [a, middle, c].map((name) => middleOf(body, name)) as [Vec, Vec, Vec];
    const along = unit(less(to, from));
    out.push(...cross(along, less(at, from)).map((v) => (WEIGHT.contact * v) / 2));
  }
  // Nothing is under the floor or behind a wall.
  for (const [name, site] of Object.entries(body.sites)) {
    if (contacts.on.has(name)) continue;
    for (const wall of walls) out.push(WEIGHT.below * Math.min(0, gapOf(site, wall)));
  }
  if (contacts.balance) {
    const standing = [...contacts.on]
      .filter(([, name]) => surfaceOf(name).away[1] === 1)
      .map(([site]) => siteOf(body, site).at);
    const mean = (i: 0 | 2) => standing.reduce((sum, at) => sum + at[i], 0) / Math.max(1, standing.length);
    const mass = centreOfMass(body);
    out.push(
      ...(standing.length > 0
        ? [WEIGHT.balance * (mass[0] - mean(0)), WEIGHT.balance * (mass[2] - mean(2))]
        : [0, 0]),
    );
  }
  return out;
}

/** Solves (A + damping·diag A)·x = b for a symmetric positive A, in place of a copy. */
function solveSymmetric(a: readonly Float64Array[], b: Float64Array, damping: number): Float64Array {
  const n = b.length;
  const l = a.map((row, i) => {
    const copy = Float64Array.from(row);
    copy[i] = (copy[i] ?? 0) * (1 + damping) + 1e-9;
    return copy;
  });
  const get = (i: number, j: number) => l[i]?.[j] ?? 0;
  for (let j = 0; j < n; j += 1) {
    for (let i = j; i < n; i += 1) {
      let sum = get(i, j);
      for (let k = 0; k < j; k += 1) sum -= get(i, k) * get(j, k);
      (l[i] as Float64Array)[j] = i === j ? Math.sqrt(Math.max(sum, 1e-12)) : sum / get(j, j);
    }
  }
  const x = Float64Array.from(b);
  for (let i = 0; i < n; i += 1) {
    let sum = x[i] ?? 0;
    for (let k = 0; k < i; k += 1) sum -= get(i, k) * (x[k] ?? 0);
    x[i] = sum / get(i, i);
  }
  for (let i = n - 1; i >= 0; i -= 1) {
    let sum = x[i] ?? 0;
    for (let k = i + 1; k < n; k += 1) sum -= get(k, i) * (x[k] ?? 0);
    x[i] = sum / get(i, i);
  }
  return x;
}

/** The pose nearest to a written one in which the contacts hold: damped least squares over all numbers. */
export function settle(
  written: Pose,
  contacts: Contacts,
  kit: readonly Kit[],
  resists: readonly number[],
  rounds = ROUNDS,
): Pose {
  const surfaces = surfacesOf(kit);
  const walls = [...surfaces]
    .filter(([name]) => name === 'floor' || name.startsWith('wall'))
    .map(([, s]) => s);
  const all = (pose: Pose): number[] => [
    ...residuals(bodyOf(pose), contacts, surfaces, walls),
    ...pose.map((value, i) => (resists[i] ?? 0) * (value - (written[i] ?? 0))),
  ];
  const clamp = (value: number, i: number) =>
    Math.min(RANGE[i]?.[1] ?? 0, Math.max(RANGE[i]?.[0] ?? 0, value));
  let pose = written.map(clamp);
  let now = all(pose);
  let cost = now.reduce((sum, r) => sum + r * r, 0);
  let damping = 1e-2;
  for (let round = 0; round < rounds; round += 1) {
    const columns = pose.map((value, i) => {
      const h = value + 0.02 > (RANGE[i]?.[1] ?? 0) ? -0.02 : 0.02;
      const moved = all(pose.map((other, j) => (j === i ? other + h : other)));
      return moved.map((r, k) => (r - (now[k] ?? 0)) / h);
    });
    const n = pose.length;
    const a = columns.map((one) => {
      const row = new Float64Array(n);
      columns.forEach((other, j) => {
        let sum = 0;
        for (let k = 0; k < one.length; k += 1) sum += (one[k] ?? 0) * (other[k] ?? 0);
        row[j] = sum;
      });
      return row;
    });
    const b = Float64Array.from(columns, (one) => -one.reduce((sum, v, k) => sum + v * (now[k] ?? 0), 0));
    let better = false;
    for (let attempt = 0; attempt < 6 && !better; attempt += 1) {
      const step = solveSymmetric(a, b, damping);
      const next = pose.map((value, i) => clamp(value + Math.max(-STEP, Math.min(STEP, step[i] ?? 0)), i));
      const there = all(next);
      const nextCost = there.reduce((sum, r) => sum + r * r, 0);
      if (nextCost < cost) {
        better = true;
        const gain = cost - nextCost;
        pose = next;
        now = there;
        cost = nextCost;
        damping = Math.max(1e-6, damping / 4);
        if (gain < 1e-4 * (1 + cost)) round = rounds;
      } else damping *= 8;
    }
    if (!better) break;
  }
  return pose;
}

/** The poses of a figure, one a key. */
export interface Solved {
  readonly poses: readonly (readonly number[])[];
  /** Poses on the way from each key to the next, where going straight would let a contact drift; none where it does not. */
  readonly between: readonly (readonly (readonly number[])[])[];
}

/** How far a contact may drift on the way from key to key, in u. */
const DRIFT = 0.5;
const SHARES = [0.25, 0.5, 0.75];
const tenths = (pose: Pose): number[] => pose.map((v) => Math.round(v * 10) / 10);

/** The way from one key to the next on which what stands in both stays, and what slides goes straight. */
export function wayBetween(
  from: Pose,
  to: Pose,
  both: readonly string[],
  kit: readonly Kit[],
  resists: readonly number[],
): number[][] {
  const [first, last] = [bodyOf(from), bodyOf(to)];
  const poses = SHARES.map((share) => {
    const straight = from.map((v, i) => v + ((to[i] ?? v) - v) * share);
    const meant = new Map(
      both.map((site) => [site, between(siteOf(first, site).at, siteOf(last, site).at, share)]),
    );
    const body = bodyOf(straight);
    const drift = Math.max(
      0,
      ...both.map((site) => size(less(siteOf(body, site).at, meant.get(site) as Vec))),
    );
    return { straight, meant, drift };
  });
  if (poses.every(({ drift }) => drift <= DRIFT)) return [];
  return poses.map(({ straight, meant }) =>
    tenths(settle(straight, { ...nothingHeld(), at: new Map(meant) }, kit, resists, 12)),
  );
}

/** What has to hold in each key of a figure, one after the other: what stands on a surface in both keys stays where it was. */
function* meantIn(source: FigureSource): Generator<Contacts, void, Pose> {
  const free = new Set((source.slide ?? []).flatMap(sitesOf));
  let contacts = changed(
    { ...nothingHeld(), balance: source.balance ?? false },
    source as FigureSource['keys'][0],
  );
  let standing = new Map<string, string>();
  let before: Body | null = null;
  for (const key of source.keys) {
    contacts = changed(contacts, key);
    const pinned = new Map(contacts.at);
    if (before)
      for (const [site, surface] of contacts.on)
        if (standing.get(site) === surface && !free.has(site) && !pinned.has(site))
          pinned.set(site, siteOf(before, site).at);
    standing = contacts.on;
    before = bodyOf(yield { ...contacts, at: pinned });
  }
}

/** In each pose of a figure: which place lies on which surface, and how far the contacts are off, in u. */
export function contactsIn(
  source: FigureSource,
  poses: readonly Pose[],
): readonly { readonly on: ReadonlyMap<string, string>; readonly off: number }[] {
  const surfaces = surfacesOf(source.kit ?? []);
  const meant = meantIn(source);
  let held = meant.next();
  return poses.flatMap((pose) => {
    if (held.done) return [];
    const { value } = held;
    const left = residuals(bodyOf(pose), { ...value, balance: false, aim: [] }, surfaces, []);
    held = meant.next(pose);
    return [{ on: value.on, off: Math.max(0, ...left.map((r) => Math.abs(r) / WEIGHT.contact)) }];
  });
}

/** Solves a figure whose base is already written into it. */
export function solveFigure(source: FigureSource): Solved {
  const kit = source.kit ?? [];
  const resists = [...PRIOR];
  for (const [name, weight] of Object.entries(source.w ?? {}))
    for (const i of placesOf(name)) resists[i] = weight;
  let pose: Pose = poseOf(source.set);
  const poses: number[][] = [];
  const ways: number[][][] = [];
  const meant = meantIn(source);
  let held = meant.next();
  let before: Contacts | null = null;
  for (const key of source.keys) {
    if (held.done) break;
    const now: Contacts = held.value;
    const solved = tenths(settle(written(pose, key.set), now, kit, resists));
    if (before) {
      const stays = [...now.on].filter(([site, surface]) => before?.on.get(site) === surface);
      const both = new Set([...stays.map(([site]) => site), ...now.at.keys()]);
      const kept = [...both].filter((site) => before?.on.has(site) || before?.at.has(site));
      ways.push(wayBetween(pose, solved, kept, kit, resists));
    }
    poses.push(solved);
    pose = solved;
    before = now;
    held = meant.next(solved);
  }
  return { poses, between: ways };
}
