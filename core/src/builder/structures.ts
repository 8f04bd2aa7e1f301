import type { BuildRequest, Mode, Standing } from '../domain/index.ts';
import { schoolOption } from '../findings/index.ts';
import type { Phase, Reference, Structure } from '../reference/index.ts';

/** A phase as it stands today: what it holds of the actions that follow. */
export interface TodaysPhase extends Phase {
  /** Only what rehearses one of these actions. */
  readonly onlyActions?: readonly string[];
  /** Drills that may stand in it whatever their category: they ready for what follows. */
  readonly also?: ReadonlySet<string>;
}

/** The structure in force with its phases adapted to the school on static stretching. */
export interface ChosenStructure {
  readonly structure: Structure;
  readonly phases: readonly TodaysPhase[];
  readonly minutes: number;
}

const SCHOOL_STRUCTURE: Readonly<Record<string, string>> = {
  'two-block': 'two-block-general-to-specific',
  'six-step': 'six-step-ramp',
  'bottom-up': 'bottom-up-pairs',
};

/** Minutes up to which a preparation is proposed as rapid ready, and as the short minimum (their own upper ends). */
function structureIdFor(reference: Reference, mode: Mode, minutes: number | null, school: string): string {
  if (mode === 'restore') return 'post-activity-recovery';
  if (mode === 'build') return 'single-joint-sequence';
  const rapid = reference.structures.get('rapid-ready');
  const short = reference.structures.get('short-minimum');
  if (minutes !== null && rapid && short) {
    if (minutes <= rapid.minutes.max) return rapid.id;
    if (minutes <= short.minutes.max) return short.id;
  }
  const wanted = SCHOOL_STRUCTURE[school] ?? 'two-block-general-to-specific';
  const sixStep = reference.structures.get('six-step-ramp');
  if (wanted === 'six-step-ramp' && sixStep && minutes !== null && minutes < sixStep.minutes.min)
    return 'two-block-general-to-specific';
  return wanted;
}

const stretchPhase = (id: string, name: string): Phase => ({
  id,
  name,
  shareOfTime: 0,
  categories: ['stretch'],
  minDrills: 0,
  maxDrills: 2,
});

function withStretch(phases: readonly Phase[], option: string): readonly Phase[] {
  if (option === 'last-step')
    return [...phases, stretchPhase('last-step-stretch', 'Short hold as the last step')];
  if (option !== 'short-then-dynamic') return phases;
  const after = phases.findLastIndex((phase) => phase.categories.includes('mobilise'));
  // Movement has to follow the hold, so it never closes the preparation.
  if (after < 0 || after === phases.length - 1) return phases;
  return [
    ...phases.slice(0, after + 1),
    stretchPhase('short-stretch', 'Short static hold, then movement'),
    ...phases.slice(after + 1),
  ];
}

/** School "release first": release stands in a part of its own before anything is mobilised; a call-up has no time for it. */
function withRelease({ id, phases }: Structure, option: string): readonly Phase[] {
  const first = phases.findIndex((phase) => phase.categories.includes('mobilise'));
  const own = phases.some(({ categories }) => categories.every((category) => category === 'release'));
  if (option !== 'first' || id === 'rapid-ready' || first < 0 || own) return phases;
  const rest = phases.map((phase) => ({
    ...phase,
    categories: phase.categories.filter((category) => category !== 'release'),
  }));
  const release: Phase = {
    id: 'release-first',
    name: 'Release, before mobilising',
    shareOfTime: 0,
    categories: ['release'],
    minDrills: 0,
    maxDrills: 4,
  };
  return [...rest.slice(0, first), release, ...rest.slice(first)];
}

/** The structure asked for, or the school's default for the mode and the minutes at hand. */
export function chooseStructure(
  reference: Reference,
  schools: Standing['schools'],
  request: BuildRequest,
): ChosenStructure {
  const school = schoolOption(reference, schools, 'default-structure');
  const id = request.structure ?? structureIdFor(reference, request.mode, request.minutes, school);
  const structure = reference.structures.get(id);
  if (!structure) throw new RangeError(`unknown structure ${id}`);
  const stretch = schoolOption(reference, schools, 'static-stretch-before');
  const release = schoolOption(reference, schools, 'release-first');
  return {
    structure,
    phases:
      request.mode === 'prepare' ? withStretch(withRelease(structure, release), stretch) : structure.phases,
    minutes: request.minutes ?? structure.minutes.default,
  };
}
