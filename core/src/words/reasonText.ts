import type { Infeasible } from '../builder/index.ts';
import type { Reason } from '../findings/index.ts';
import type { Reference } from '../reference/index.ts';
import { duration, figure, nameOf, number, percent, signedFigure } from './figures.ts';
import { SIDE_LABEL } from './labels.ts';

type Wording = (reason: Reason, reference: Reference) => string;

const text = (reason: Reason, key: string): string => String(reason[key] ?? '');
const num = (reason: Reason, key: string): number => Number(reason[key] ?? 0);
const name = (reason: Reason, reference: Reference, key: string): string =>
  nameOf(reference, text(reason, key));
const side = (reason: Reason): string => SIDE_LABEL[text(reason, 'side') as keyof typeof SIDE_LABEL] ?? '';
const unitOf = (reason: Reason, reference: Reference): string =>
  reference.tests.get(text(reason, 'test'))?.unit ?? '';

const NEED_WORD: Readonly<Record<string, string>> = {
  task: 'asked by',
  floor: 'reference floor of',
  override: 'own need set for',
  symmetry: 'other side,',
  ratio: 'ratio',
};

const RULE_WORD: Readonly<Record<string, string>> = {
  'blocked-region': 'a stop-and-refer sign blocks',
  'precaution-exclude': 'a precaution forbids it:',
  'precaution-clearance': 'it needs a clearance note:',
  protocol: 'after an operation only ticked items are shown:',
  youth: 'not offered under',
  kit: 'kit not at hand:',
  position: 'position ruled out:',
  timing: 'not meant for',
  mode: 'not offered in mode',
  school: 'your school rules it out:',
  ban: 'banned for this routine:',
  disliked: 'the athlete does not like it:',
  'needs-partner': 'needs a helper:',
  level: 'level not open yet:',
  archived: 'archived by the practice:',
  'load-near-limit': 'extra conditioning is held back near the weekly limit:',
  'other-fillers': 'it serves nothing that is short, and other general drills fit better:',
  'structure-phase': 'no phase of this structure takes',
  'serves-nothing': 'it serves none of the restrictions:',
};

function because(reason: Reason, reference: Reference): string {
  return `${RULE_WORD[text(reason, 'because')] ?? text(reason, 'because')} ${name(reason, reference, 'about')}`.trim();
}

const WORDS: Readonly<Record<string, Wording>> = {
  'short-of-need': (r, ref) => {
    const unit = unitOf(r, ref);
    const source = `${NEED_WORD[text(r, 'source')] ?? ''} ${name(r, ref, 'sourceId')}`;
    return `${name(r, ref, 'test')}: ${figure(num(r, 'estimate'), unit)} against ${figure(num(r, 'need'), unit)} needed (${source}); reserve ${signedFigure(num(r, 'reserve'), unit)}, short with ${percent(num(r, 'pShort'))}.`;
  },
  'short-of-other-side': (r, ref) => {
    const unit = unitOf(r, ref);
    return `${name(r, ref, 'test')}: ${figure(num(r, 'estimate'), unit)}, at least ${figure(num(r, 'need'), unit)} wanted beside the ${text(r, 'sourceId')} side; short with ${percent(num(r, 'pShort'))}.`;
  },
  'symmetry-capped': () =>
    'This side meets its own need; only the other side speaks, so severity is capped at 0.3.',
  'pain-limited': (r) => `Taken with pain above ${num(r, 'limit')}/10: read it as pain-limited.`,
  'estimate-restarted': (r) =>
    `The estimate starts anew on ${text(r, 'date')} (${r.because === 'injury' ? 'injury' : 'more than a year without a result'}).`,
  'single-visit': () => 'Rests on one visit; a repeat would make it firmer.',
  'task-relevant': () => 'A chosen task asks for it (factor 1).',
  'not-asked-by-task': (r) => `No chosen task asks for it (factor ${num(r, 'factor')}).`,
  'injury-history': (r, ref) =>
    `${name(r, ref, 'region')} injured within 24 months (factor ${num(r, 'factor')}).`,
  'seen-by-eye': (r) =>
    `Seen by eye (${text(r, 'degree')}) by ${text(r, 'by')} on ${text(r, 'date')}; not measured.`,
  confirmed: (r) => `Confirmed by ${text(r, 'by')} on ${text(r, 'date')}.`,
  dismissed: (r) =>
    `Set aside by ${text(r, 'by')} on ${text(r, 'date')}: ${text(r, 'reason')}. It counts again once it is measured anew.`,
  'test-never-done': (r) => `Never done; takes ${number(num(r, 'minutes'), 1)} min.`,
  'test-undecided': (r) => `The last result leaves it open; takes ${number(num(r, 'minutes'), 1)} min.`,
  'task-asks-for-test': () => 'A chosen task asks for it.',
  'region-injured': (r, ref) => `${name(r, ref, 'region')} was injured within 24 months.`,
  serves: (r, ref) => {
    const from =
      r.from === 'finding'
        ? `priority ${number(num(r, 'weight'), 2)}`
        : `asked by ${r.from === 'task' ? 'the tasks' : 'the injury history'}`;
    const where = r.side === 'central' ? '' : `, ${side(r)}`;
    return `Serves ${name(r, ref, 'restriction').toLowerCase()}${where} (match ${num(r, 'match')}, ${from}).`;
  },
  'fills-phase': (r) =>
    `Fills the phase "${text(r, 'phase')}"; general and dynamic, serves no listed restriction.`,
  'chosen-by-hand': () => 'Chosen by the practitioner.',
  'not-offered': (r, ref) => `Not offered by the builder: ${because(r, ref)}.`,
  pinned: () => 'Pinned by the practitioner.',
  'level-criteria': () => 'Level: the entry criteria are met by tests and diary.',
  'level-placement': () => 'Level: placed here by the practitioner.',
  'level-routine': () => 'Level: already in the routine in force.',
  'level-first-level': () => 'Level: the first of its ladder.',
  'level-start-rule': () => 'Level: start rule, please confirm.',
  'level-pin': () => 'Level: opened by the pin, please confirm.',
  'dose-from-maximum': (r, ref) =>
    `Dose: ${percent(num(r, 'share'))} of the tested ${figure(num(r, 'maximum'), unitOf(r, ref))} (${name(r, ref, 'test')}).`,
  'dose-lower-half': (r) =>
    `Dose: lower half of ${num(r, 'min')}–${num(r, 'max')}; no fresh maximum, and far from failure before activity.`,
  'dose-growing': (r) => `Dose: lower half of ${num(r, 'min')}–${num(r, 'max')}; still growing.`,
  'dose-default': (r) => `Dose: the drill's usual ${num(r, 'amount')}; no fresh maximum.`,
  'dose-stretch-cap': (r) => `Dose: at most ${num(r, 'seconds')} s a side before activity (school).`,
  'short-side-only': (r) => `Only the ${side(r)} side: the other is not short.`,
  'extra-set': (r) => `One set more on the ${side(r)} side, which is shorter.`,
  rehearses: (r, ref) =>
    `Rehearses today’s action: ${name(r, ref, 'pattern').toLowerCase()} (match ${num(r, 'match')}).`,
  preferred: () => 'Kept from the routine this one starts from.',
  'load-near-limit': (r, ref) =>
    `${name(r, ref, 'region')}: ${number(num(r, 'load'), 1)} of ${number(num(r, 'limit'), 0)} load-minutes in seven days, near the limit set; ${r.held === true ? 'no extra conditioning there (school). A count, not a prediction' : 'please confirm extra conditioning there'}.`,
  'no-drill-known': () => 'No drill of the library serves it.',
  'general-routine': () => 'General routine: nothing screened yet, built from tasks and injury history.',
  'precaution-review-due': (r, ref) =>
    `${name(r, ref, 'precaution')} was due for review on ${text(r, 'until')}; it still binds until a named person ends it.`,
  'confirm-level': (r, ref) => `${name(r, ref, 'drill')}: starting level by rule, please confirm.`,
  'youth-limits': (r) => `Aged ${num(r, 'age')}: adult figures do not apply, youth limits do.`,
  'handle-with-care': (r, ref) =>
    `${name(r, ref, 'drill')} (${name(r, ref, 'precaution').toLowerCase()}): ${text(r, 'text')}`,
  'phase-below-minimum': (r) =>
    `${text(r, 'phase')}: ${num(r, 'drills')} of at least ${num(r, 'minimum')} drills.`,
  'phase-share': (r) =>
    `${text(r, 'phase')}: ${percent(num(r, 'share'))} of the time, ${percent(num(r, 'wanted'))} meant.`,
  'no-room': (r) =>
    `No room in ${num(r, 'minutes')} min and ${num(r, 'maxDrills')} drills; more minutes or drills would let it in.`,
  'no-drill-allowed': (r, ref) =>
    `No drill may be used; nearest is ${name(r, ref, 'drill')}: ${because(r, ref)} (${num(r, 'drills')} ${num(r, 'drills') === 1 ? 'drill' : 'drills'}).`,
  'pain-above-limit': (r) =>
    `Pain ${num(r, 'pain')}/10 on ${text(r, 'date')}, above the limit of ${num(r, 'limit')}.`,
  'pain-above-limit-twice': (r) =>
    `Pain above the limit of ${num(r, 'limit')} in two sessions running: stop this drill and refer.`,
  'pain-amber-twice': (r) => `Pain above ${num(r, 'fine')}/10 twice running.`,
  'pain-amber': (r) =>
    `Pain ${num(r, 'pain')}/10, above the fine limit of ${num(r, 'fine')}: not a clean session.`,
  'worse-next-day': (r) =>
    `Worse next day ${num(r, 'times')}× running: ${num(r, 'before')} before, ${num(r, 'after')} the day after (more than +${num(r, 'tolerance')}).`,
  'long-break': (r) => `${num(r, 'days')} days without it: one step easier.`,
  'days-off': (r) =>
    `${num(r, 'days')} days since the last session (at most ${num(r, 'most')} for an advance).`,
  'no-sessions-yet': () => 'No session yet at this prescription.',
  'part-done': () => 'Only part was done last time.',
  'poor-quality': (r) => `Quality ${num(r, 'quality')} of 3 last time.`,
  'effort-too-high': (r) => `Effort ${num(r, 'effort')}/10, at most ${num(r, 'most')} for the next step.`,
  'clean-sessions': (r) => `${num(r, 'done')} of ${num(r, 'wanted')} clean sessions at this prescription.`,
  'easiest-already': () => 'It is at its easiest already: leave it out.',
  'towards-criterion': (r) => `Clean sessions done; next towards ${num(r, 'sets')} × ${num(r, 'amount')}.`,
  'share-of-maximum-reached': (r) =>
    `${num(r, 'amount')} is as near to the tested maximum as this mode allows.`,
  'set-up-one-step': (r) =>
    `Amount reached; ${text(r, 'variable').toLowerCase()} to ${text(r, 'to')}${r.unit ? ` ${text(r, 'unit')}` : ''}.`,
  'level-criteria-met': (r, ref) => `Amount and set-up reached; next level: ${name(r, ref, 'drill')}.`,
  'guard-test': (r, ref) =>
    r.probability === null
      ? `${name(r, ref, 'test')} not tested yet; it guards the next level (at least ${num(r, 'gate')}).`
      : `${name(r, ref, 'test')} at least ${num(r, 'gate')} with ${percent(num(r, 'probability'))}; ${percent(num(r, 'wanted'))} wanted.`,
  'top-of-ladder': (r, ref) => `Top of the ladder "${name(r, ref, 'ladder')}".`,
  'eased-recently': (r, ref) =>
    `${name(r, ref, 'drill')} was tried within ${num(r, 'days')} days; not yet again.`,
  'next-level-not-offered': (r, ref) => `${name(r, ref, 'drill')} is not offered: ${because(r, ref)}.`,
  'no-longer-allowed': (r, ref) => `No longer allowed: ${because(r, ref)}.`,
  'region-raised-this-week': (r, ref) =>
    `${name(r, ref, 'region')} already gets over ${percent(num(r, 'share'))} more this week: one thing at a time.`,
  'screening-change': (r, ref) => {
    const real =
      r.real === 'yes'
        ? 'a real change'
        : r.real === 'possibly'
          ? 'possibly real'
          : 'within the error of the test';
    return `${name(r, ref, 'test')}${r.side === 'central' ? '' : ` ${side(r)}`}: ${signedFigure(num(r, 'difference'), unitOf(r, ref))} since last time, ${real}.`;
  },
  'better-use-of-time': () => 'Other drills do more in the minutes there are.',
  'forbidden-today': (r, ref) => `${name(r, ref, 'drill')} must not be done today: ${because(r, ref)}.`,
  'not-at-hand': (r, ref) => `${name(r, ref, 'drill')}: ${because(r, ref)}.`,
  'static-before-activity': (r, ref) =>
    `${name(r, ref, 'drill')} is a static stretch; the school avoids it before activity.`,
  'static-too-long': (r, ref) =>
    `${num(r, 'seconds')} s of static stretch a side before activity (${name(r, ref, 'drill').toLowerCase()} first); at most ${num(r, 'most')} s in all (school).`,
  'no-movement-after-hold': (r, ref) =>
    `No movement after ${name(r, ref, 'drill').toLowerCase()}; a short hold needs some (school).`,
  'cooled-down': (r, ref) =>
    `${number(num(r, 'minutes'), 0)} min after the last warming drill (${name(r, ref, 'drill').toLowerCase()}); beyond ${num(r, 'most')} min much of it is gone.`,
  'never-warmed': () => 'Nothing in it raises the temperature.',
  'beyond-range': (r, ref) =>
    `${name(r, ref, 'drill')} goes beyond its usual range (most ${num(r, 'most')}), and no maximum was tested.`,
  'too-close-to-failure': (r, ref) =>
    `${name(r, ref, 'drill')} uses ${percent(num(r, 'share'))} of the tested maximum (${name(r, ref, 'test').toLowerCase()}); ${percent(num(r, 'allowed'))} is meant here.`,
  'weak-side-forgotten': (r, ref) =>
    `${name(r, ref, 'drill')} gives the ${side(r)} side less, though it is the shorter one.`,
  'same-level-again': (r, ref) =>
    `${name(r, ref, 'next')} is open (${r.by === 'placement' ? 'placed there' : 'criteria met'}), yet ${name(r, ref, 'drill').toLowerCase()} is repeated.`,
  'same-tissue-twice': (r, ref) =>
    `${name(r, ref, 'before')} and ${name(r, ref, 'drill').toLowerCase()} work the same tissue one after the other.`,
  'phase-order': (r, ref) =>
    `${name(r, ref, 'drill')} stands before a drill of the earlier phase "${text(r, 'phase')}".`,
  'two-of-one-ladder': (r, ref) =>
    `${name(r, ref, 'other')} and ${name(r, ref, 'drill').toLowerCase()} are levels of one ladder.`,
  'over-time': (r) => `${duration(num(r, 'over'))} over the ${num(r, 'minutes')} min there are.`,
  'repair-swap': (r, ref) => `Take ${name(r, ref, 'instead').toLowerCase()} instead`,
  'repair-remove': (r, ref) => `Take out ${name(r, ref, 'drill').toLowerCase()}`,
  'repair-one-side': (r) => `Only the ${side(r)} side`,
  'repair-shorten': (r) => `One hold of ${num(r, 'seconds')} s each`,
  'repair-move-before': (r, ref) => `Put it before ${name(r, ref, 'before').toLowerCase()}`,
  'repair-add': (r, ref) => `Add ${name(r, ref, 'drill').toLowerCase()}`,
  'repair-lower': (r) => `Lower to ${num(r, 'amount')}`,
  'repair-weak-side': (r) => `Do the ${side(r)} side as well`,
  'repair-next-level': (r, ref) => `Go on to ${name(r, ref, 'next').toLowerCase()}`,
  'repair-reorder': () => 'Part them',
  'repair-order': () => 'Put into order',
  'repair-cut': (r) =>
    num(r, 'drills') === 0
      ? 'Fit in with fewer sets'
      : `Fit in: fewer sets, ${num(r, 'drills')} ${num(r, 'drills') === 1 ? 'drill' : 'drills'} less`,
  'unknown-drill': (r) => `Unknown drill ${text(r, 'drill')}.`,
};

/** The rules that have words; a test holds every rule in use against it. */
export const KNOWN_RULES: ReadonlySet<string> = new Set(Object.keys(WORDS));

/** A reason in one plain sentence. Unknown rules are named rather than hidden. */
export function reasonText(reference: Reference, reason: Reason): string {
  return WORDS[reason.rule]?.(reason, reference) ?? `Rule ${reason.rule}.`;
}

/** Why a drill cannot be used: "kit not at hand: long band". */
export function ruleText(reference: Reference, rule: string, about: string): string {
  return because({ rule: 'ineligible', because: rule, about }, reference);
}

/** Two rules that clash, in words. */
export function infeasibleText(reference: Reference, clash: Infeasible): string {
  const [, rule = ''] = clash.rules;
  const names = clash.about.map((id) => nameOf(reference, id));
  switch (rule) {
    case 'one-per-ladder':
      return `${names.join(' and ')} are on one ladder; a routine holds one of them. Unpin one.`;
    case 'time':
      return `The pinned drills need ${clash.amount ?? 'some'} s more than there are. Give more minutes or unpin one.`;
    case 'max-drills':
      return `${names.length} drills are pinned, ${clash.amount ?? 1} more than the maximum. Raise it or unpin one.`;
    case 'fatigue':
      return 'The pinned drills are more tiring together than the cap allows. Unpin one or raise the cap.';
    case 'phase-max':
    case 'phase-contacts':
      return `The pinned drills ${names.join(', ')} do not fit the phases of this structure together. Choose another structure or unpin one.`;
    case 'no-option':
      return `${names.join(', ')} cannot be placed in this structure.`;
    default:
      return `${names[0] ?? ''} is pinned, but ${ruleText(reference, rule, clash.about[1] ?? '')}.`;
  }
}
