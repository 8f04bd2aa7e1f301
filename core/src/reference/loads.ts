import { REGIONS } from '../domain/index.ts';
import type { Region } from '../domain/index.ts';
import type { Drill } from './types.ts';

type Loads = Partial<Record<Region, number>>;
type Loaded = Pick<Drill, 'id' | 'position' | 'loadClass' | 'ladder' | 'loadRegions'>;

/**
 * What a position puts on a region by itself, whatever the drill is for, as a share of its load (judgement, low
 * confidence). What a drill's own figures say more of stands.
 */
const BY_POSITION: Partial<Record<Drill['position'], Loads>> = {
  'half-kneeling': { knee: 0.3 },
  'tall-kneeling': { knee: 0.3 },
  quadruped: { knee: 0.3, shoulder: 0.3, 'wrist-hand': 0.3 },
  hanging: { shoulder: 0.7, elbow: 0.5, 'wrist-hand': 0.7 },
};
/** Drills on hands and feet, or head down: no knee on the floor. */
const OFF_THE_KNEES =
  /^(pike-hold|(short-)?wall-handstand(-hold)?|hand-balance-rehearsal-[89]0|hands-and-feet|(band-|short-)?push-up(-plus)?$|push-rehearsal|plank-shoulder-tap|straight-arm-support)/;
/** Positions in which an impact goes through the legs into the low back. */
const ON_FEET: readonly Drill['position'][] = ['standing', 'single-leg-standing', 'moving'];
const IMPACT: Loads = { 'ankle-foot': 0.5, knee: 0.5, 'hip-groin': 0.5, lumbopelvic: 0.5 };
/** Ladders that lift or bend the trunk against a load: the low back carries it. */
const LIFTS = /hinge|back-extension/;
const LIFT: Loads = { lumbopelvic: 0.5 };

/** Ladders that grip or bend the wrist against a resistance: the muscles begin at the elbow. */
const GRIPS = /^(finger-hook|loaded-carry|wrist-side-strength)$/;
const GRIP: Loads = { elbow: 0.4 };

/** Ladders whose drills run, jump, land or cut as an action, also where an easy step of it is no full impact. */
const RUNS =
  /^(rehearse-(run|cut|land|sprint-start)|raise-(run|rope|skip|hill|shuttle|lane|side-run|crossover)|build-up-run|braking|jump-power|landing|rebound|cool-down-jog)/;

/** Does a drill jolt the legs and the back: an impact by class, a bound, or any step of running, landing and cutting? */
export function jolts(drill: Pick<Drill, 'ladder' | 'loadClass'>): boolean {
  return drill.loadClass === 'impact' || RUNS.test(drill.ladder);
}

/** Does the whole body hang from the hands, with no help from the feet or a band? */
export function hangs({ position, loadClass }: Pick<Drill, 'position' | 'loadClass'>): boolean {
  return position === 'hanging' && loadClass === 'full';
}

/** Is it done standing or moving on the feet, so that both legs carry? */
export function onFeet({ position }: Pick<Drill, 'position'>): boolean {
  return ON_FEET.includes(position);
}

/** Is a knee on the floor, with weight on it? */
export function kneels({ id, position }: Pick<Drill, 'id' | 'position'>): boolean {
  return BY_POSITION[position]?.knee !== undefined && !OFF_THE_KNEES.test(id);
}

/** Does a drill kneel on this region? Then its other side does not spare it: one knee or the other is down. */
export function kneelsOn(drill: Pick<Drill, 'id' | 'position'>, region: Region): boolean {
  return region === 'knee' && kneels(drill);
}

function derived(drill: Loaded, region: Region): number {
  const position = region === 'knee' && !kneels(drill) ? 0 : (BY_POSITION[drill.position]?.[region] ?? 0);
  const jumps = onFeet(drill) && jolts(drill);
  const lifts = LIFTS.test(drill.ladder) && drill.loadClass !== 'unloaded';
  return Math.max(
    position,
    jumps ? (IMPACT[region] ?? 0) : 0,
    lifts ? (LIFT[region] ?? 0) : 0,
    GRIPS.test(drill.ladder) ? (GRIP[region] ?? 0) : 0,
  );
}

/** A region is worked by a drill that is for it, or that puts this share of its load on it. */
const WORKED = 0.5;

/** Regions that a drill works: those it is for, and those that carry much of its load. */
export function regionsWorked(drill: Loaded & Pick<Drill, 'regions'>): Region[] {
  const loaded =
    drill.loadClass === 'unloaded' ? [] : REGIONS.filter((region) => loadOn(drill, region) >= WORKED);
  return [...new Set([...drill.regions.primary, ...loaded])];
}

/** The share of a drill's load that a region carries, 0 to 1: as written, or by its position and action where that is more. */
export function loadOn(drill: Loaded, region: Region): number {
  return drill.loadRegions.reduce(
    (most, load) => (load.region === region ? Math.max(most, load.weight) : most),
    derived(drill, region),
  );
}
