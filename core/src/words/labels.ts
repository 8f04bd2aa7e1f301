import type { ItemSide, Mode, Occasion, Region, Side, Weekday } from '../domain/index.ts';
import type { FindingState } from '../findings/index.ts';
import type { DecisionKind } from '../progress/index.ts';
import type { Category, Drill, ReadinessElement, Reference } from '../reference/index.ts';

/** States in words. */
export const STATE_LABEL: Readonly<Record<FindingState, string>> = {
  short: 'short',
  'likely-short': 'likely short',
  'within-error': 'within error',
  enough: 'enough',
};

/** Sides in words. */
export const SIDE_LABEL: Readonly<Record<Side | ItemSide, string>> = {
  left: 'left',
  right: 'right',
  both: 'both sides',
  central: 'central',
};

/** The fixed marks of the sides; never colour alone. */
export const SIDE_MARK: Readonly<Record<Side | ItemSide, string>> = {
  left: '◁',
  right: '▷',
  both: '◁▷',
  central: '◇',
};

/** Modes in words. */
export const MODE_LABEL: Readonly<Record<Mode, string>> = {
  prepare: 'Prepare',
  build: 'Build',
  restore: 'Restore',
};

/** Occasions in words. */
export const OCCASION_LABEL: Readonly<Record<Occasion, string>> = {
  'before-training': 'Before training',
  'before-competition': 'Before competition',
  'called-in': 'Called in',
  'between-efforts': 'Between efforts',
  'at-competition': 'At the competition',
  after: 'After',
  'on-its-own': 'On its own',
  'at-home': 'At home',
  travel: 'Travel',
};

/** Weekdays in words. */
export const WEEKDAY_LABEL: Readonly<Record<Weekday, string>> = {
  mon: 'Mon',
  tue: 'Tue',
  wed: 'Wed',
  thu: 'Thu',
  fri: 'Fri',
  sat: 'Sat',
  sun: 'Sun',
};

/** Decisions in words. */
export const DECISION_LABEL: Readonly<Record<DecisionKind, string>> = {
  'advance-dose': 'More',
  'change-setup': 'Harder set-up',
  'advance-level': 'Next level',
  maintain: 'Keep up',
  keep: 'Keep',
  ease: 'Easier',
  'stop-and-refer': 'Stop and refer',
};

/** Categories in words. */
export const CATEGORY_LABEL: Readonly<Record<Category, string>> = {
  release: 'release',
  raise: 'raise',
  mobilise: 'mobilise',
  activate: 'activate',
  stabilise: 'stabilise',
  strengthen: 'strengthen',
  neuromuscular: 'coordinate',
  stretch: 'stretch',
};

/** What a drill is for, in a word: rehearsals by that name, all others by their category. */
export function kindText(
  reference: Reference,
  { ladder, category }: Pick<Drill, 'ladder' | 'category'>,
): string {
  return reference.ladders.get(ladder)?.rehearsal ? 'rehearse' : CATEGORY_LABEL[category];
}

/** The words of a school's option; its id where the reference does not know it. */
export function optionLabel(reference: Reference, school: string, option: string): string {
  return reference.schools.get(school)?.options.find(({ id }) => id === option)?.label ?? option;
}

/** "Ankle dorsiflexion range, left"; central findings carry no side. */
export function withSide(name: string, side: Side | ItemSide): string {
  return side === 'central' ? name : `${name}, ${SIDE_LABEL[side]}`;
}

/** Short names of the regions for rails, axes and buttons. */
export const REGION_LABEL: Readonly<Record<Region, string>> = {
  'ankle-foot': 'Ankle & foot',
  knee: 'Knee',
  'hip-groin': 'Hip & groin',
  lumbopelvic: 'Low back',
  thoracic: 'Upper back',
  shoulder: 'Shoulder',
  elbow: 'Elbow',
  'wrist-hand': 'Wrist & hand',
  'whole-body': 'Whole body',
};

/** " (knee, left)" of what binds one region alone; nothing for what binds everywhere. */
export function boundText({ region, side }: { region: Region | null; side: Side | null }): string {
  return region === null ? '' : ` (${withSide(REGION_LABEL[region].toLowerCase(), side ?? 'central')})`;
}

/** What an element of a preparation does. */
export const READINESS_PART_LABEL = {
  warm: 'Warm',
  open: 'Open',
  wake: 'Wake',
  brace: 'Brace',
  absorb: 'Absorb',
  drive: 'Drive',
  steer: 'Steer',
  rehearse: 'Rehearse',
  after: 'Afterwards',
} as const satisfies Record<ReadinessElement['part'], string>;
