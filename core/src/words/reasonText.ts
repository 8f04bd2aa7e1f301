import { dayText } from '../domain/index.ts';
import type { Infeasible } from '../builder/index.ts';
import type { Barrier, Reason, ReasonOf, Rule } from '../reasons/index.ts';
import type { Reference } from '../reference/index.ts';
import { amountText } from './doseText.ts';
import { duration, figure, nameOf, number, percent, signedFigure } from './figures.ts';
import { itemChange, itemName } from './itemChange.ts';
import { optionLabel, SIDE_LABEL } from './labels.ts';

type Words = { readonly [R in Rule]: (reason: ReasonOf<R>, reference: Reference) => string };

const unitOf = (reference: Reference, test: string): string => reference.tests.get(test)?.unit ?? '';

const NEED_WORD: Readonly<Record<ReasonOf<'short-of-need'>['source'], string>> = {
  task: 'asked by',
  floor: 'reference floor of',
  override: 'own need set for',
  symmetry: 'other side,',
  ratio: 'ratio',
  trend: 'as on',
};

/** Why an estimate starts anew. */
const RESTARTED: Readonly<Record<ReasonOf<'estimate-restarted'>['because'], string>> = {
  injury: 'injury',
  'long-break': 'more than a year without a result',
  'real-loss': 'a loss beyond the error of the test',
  'real-change': 'two results running beyond the error of the test',
};

const RULE_WORD: Readonly<Record<Barrier, string>> = {
  'blocked-region': 'a stop-and-refer sign blocks',
  'impact-closed': 'an open stop-and-refer sign closes running, jumping and hard work for the',
  'precaution-exclude': 'a precaution forbids it:',
  'precaution-clearance': 'it needs a clearance note:',
  'day-rule': 'it hurts too much today:',
  referred: 'a diary said to stop and refer, and nobody has ended it:',
  protocol: 'after an operation only ticked items are shown:',
  youth: 'not offered under',
  'unknown-drill': 'unknown drill',
  'not-asked': 'the stop-and-refer questions are not answered yet:',
  kit: 'kit not at hand:',
  position: 'position ruled out:',
  timing: 'not meant for',
  mode: 'not offered in mode',
  school: 'by the method on',
  ban: 'banned for this routine:',
  disliked: 'the athlete does not like it:',
  'needs-partner': 'needs a helper:',
  level: 'level not open yet:',
  archived: 'archived by the practice:',
  'load-near-limit': 'extra conditioning is held back near the weekly limit:',
  'other-fillers': 'it serves nothing that is short, and other general drills fit better:',
  'structure-phase': 'no phase of this structure takes',
  'serves-nothing': 'it serves none of the restrictions:',
  space: 'no room for it, it needs a',
  'other-action': 'it rehearses something else:',
  'games-instead': 'a child prepares with games of feet instead of:',
  focus: 'today looks after other joints than the',
  'too-long': 'its shortest dose takes too much of the time:',
  'above-maximum': 'its least dose is above the share of the tested maximum:',
};

/** What a full draft is full of. */
const NO_ROOM: Readonly<
  Record<ReasonOf<'no-room'>['bound'], (r: Omit<ReasonOf<'no-room'>, 'bound' | 'rule'>) => string>
> = {
  time: ({ minutes }) => `No room: the ${minutes} min are used; more minutes would let it in.`,
  drills: ({ minutes, maxDrills }) => `No room: ${maxDrills} drills are as many as ${minutes} min hold here.`,
  phase: ({ phase }) => `No room: “${phase}” holds no more drills.`,
  ladder: () => 'A drill of the same ladder is in already.',
  method: () =>
    'No room: the method chosen for today holds no more of its kind, or wants another drill before it.',
  relief: () => 'Not before a gentle drill of what hurts.',
  graded: () => 'One graded drill into the painful position is enough for one day.',
  alone: () => 'Left out: nothing else of its region is in.',
  effort: () => 'No room: it would be more effort or more contacts than the routine may hold.',
};

/** Why no preparation of somebody ends breathing hard. */
const ENDS_SOFT: Readonly<Record<ReasonOf<'ends-soft'>['against'], string>> = {
  age: 'Never under 16.',
  breathing: 'Not with a limit of breathing on exertion.',
  injury: 'Not within six months of an injury.',
};

/** What holds many drills back, said of them all. */
const HELD_BY: Partial<Record<Barrier, string>> = {
  level: 'their level is not open yet',
  kit: 'their kit is not at hand',
  position: 'their position is ruled out',
  space: 'there is no room for them',
  school: 'the methods chosen rule them out',
  focus: 'they are for other joints than today’s',
  protocol: 'after an operation only ticked drills are given',
  'precaution-exclude': 'a precaution forbids them',
};

function because(reason: { because: Barrier; about: string }, reference: Reference): string {
  return `${RULE_WORD[reason.because]} ${nameOf(reference, reason.about)}`.trim();
}

const OTHER_SIDE: Readonly<Record<ReasonOf<'short-side-only'>['other'], string>> = {
  enough: 'the other was measured and is enough',
  short: 'the other is short as well and is served elsewhere or has to wait',
  'not-measured': 'the other was not measured',
  'partly-measured': 'of the other not all was measured, and nothing of it is known to be short',
  'not-offered': 'the other is left to the treating clinician’s protocol',
  hurts: 'the other hurts too much today',
  referred: 'the other is to be looked at first',
  precaution: 'a precaution closes the other',
};

const ASKED_BY = {
  finding: '',
  task: 'asked by the tasks',
  injury: 'asked by the injury history',
  pain: 'it hurts',
} as const;

const gateText = ({ gate, test }: ReasonOf<'guard-test'>, reference: Reference) =>
  gate === null ? 'what its criteria ask' : figure(gate, unitOf(reference, test));

const WORDS: Words = {
  'short-of-need': (r, ref) => {
    const unit = unitOf(ref, r.test);
    const source = `${NEED_WORD[r.source]} ${r.source === 'trend' ? dayText(r.sourceId) : nameOf(ref, r.sourceId)}`;
    return `${nameOf(ref, r.test)}: ${figure(r.estimate, unit)} against ${figure(r.need, unit)} needed (${source}); reserve ${signedFigure(r.reserve, unit)}, short with ${percent(r.pShort)}.`;
  },
  'short-of-other-side': (r, ref) => {
    const unit = unitOf(ref, r.test);
    return `${nameOf(ref, r.test)}: ${figure(r.estimate, unit)}, at least ${figure(r.need, unit)} wanted beside the ${r.sourceId} side; short with ${percent(r.pShort)}.`;
  },
  'youth-figures': (r) =>
    `Under ${r.age} adult figures are not used; what counts is the other side, the last visit, grades, pain and needs set by hand. It counts at most half.`,
  'need-inside-error': (r, ref) =>
    `The need of ${figure(r.need, unitOf(ref, r.test))} lies inside the error of the test (${figure(r.mdc95, unitOf(ref, r.test))}): no single reading can show that it is missed.`,
  'reading-apart': (r, ref) =>
    `The latest reading, ${figure(r.value, unitOf(ref, r.test))}, and the estimate over all visits, ${figure(r.estimate, unitOf(ref, r.test))}, lie further apart than a reading errs (${figure(r.error, unitOf(ref, r.test))}): measure again.`,
  'tests-disagree': (r, ref) =>
    `Two tests contradict: ${nameOf(ref, r.short)} says short, ${nameOf(ref, r.enough)} says enough.${
      r.measured === null ? '' : ` ${nameOf(ref, r.measured)} measures it directly and counts more.`
    } ${r.again ? 'Measure again' : 'Would settle it'}: ${nameOf(ref, r.settle)}.`,
  'symmetry-capped': () =>
    'This side meets its own need; only the other side speaks, so severity is capped at 0.3.',
  'pain-limited': (r) => `Taken with pain above ${r.limit}/10: read it as pain-limited.`,
  'estimate-restarted': (r) => `The estimate starts anew on ${dayText(r.date)} (${RESTARTED[r.because]}).`,
  'from-before-injury': (r, ref) =>
    `${nameOf(ref, r.test)} is from before the injury of ${dayText(r.date)}: it opens no level and gives no dose until it is measured again.`,
  'single-visit': () => 'Rests on one visit; a repeat would make it firmer.',
  'task-relevant': (r) => `A chosen task asks for it (factor ${r.factor}).`,
  'not-asked-by-task': (r) => `No chosen task asks for it (factor ${r.factor}).`,
  'injury-history': (r, ref) => `${nameOf(ref, r.region)} injured within 24 months (factor ${r.factor}).`,
  'seen-by-eye': (r) => `Seen by eye (${r.degree}) by ${r.by} on ${dayText(r.date)}; not measured.`,
  confirmed: (r) => `Confirmed by ${r.by} on ${dayText(r.date)}.`,
  dismissed: (r) =>
    `Set aside by ${r.by} on ${dayText(r.date)}: ${r.reason}. It counts again once it is measured anew.`,
  'test-never-done': (r) => `Never done; takes ${duration(r.minutes * 60)}.`,
  'test-undecided': (r) => `The last result leaves it open; takes ${duration(r.minutes * 60)}.`,
  'task-asks-for-test': () => 'A chosen task asks for it.',
  'region-injured': (r, ref) => `${nameOf(ref, r.region)} was injured within 24 months.`,
  serves: (r, ref) => {
    const from = r.from === 'finding' ? `priority ${number(r.weight, 2)}` : ASKED_BY[r.from];
    const where = r.side === 'central' ? '' : `, ${SIDE_LABEL[r.side]}`;
    return `Serves ${nameOf(ref, r.restriction).toLowerCase()}${where} (match ${r.match}, ${from}).`;
  },
  'fills-phase': (r) => `Fills the phase "${r.phase}"; general and dynamic, serves no listed restriction.`,
  'chosen-by-hand': () => 'Chosen by the practitioner.',
  'not-offered': (r, ref) => `Not offered by the builder: ${because(r, ref)}.`,
  pinned: () => 'Pinned by the practitioner.',
  'level-criteria': () => 'Level: the entry criteria are met by tests and diary.',
  'level-harder-rung': () => 'Level: a maximum tested at this level or a harder one reaches its least dose.',
  'level-placement': () => 'Level: seen fine by the practitioner.',
  'level-routine': () => 'Level: already in the routine in force.',
  'level-first-level': () => 'Level: the first of its ladder.',
  'level-start-rule': () => 'Level: start rule, please confirm.',
  'level-exposure': () => 'Level: opened by what is done every week, please confirm.',
  'level-pin': () => 'Level: opened by the pin, please confirm.',
  'dose-from-maximum': (r, ref) =>
    `Dose: ${percent(r.share)} of the tested ${figure(r.maximum, unitOf(ref, r.test))} (${nameOf(ref, r.test)}).`,
  'dose-lower-half': (r) =>
    `Dose: lower half of ${r.min}–${r.max}, kept low before activity; there is no fresh maximum to go by.`,
  'dose-growing': (r) => `Dose: lower half of ${r.min}–${r.max}; still growing.`,
  'dose-one-bout': (r) => `One bout of ${r.amount} s, without rests; the drill takes ${r.min} to ${r.max} s.`,
  'dose-default': (r) => `Dose: the drill's usual ${r.amount}; no fresh maximum.`,
  'dose-tendon-hold': (r) =>
    `Dose: holds of ${r.seconds} s for a tendon that hurts, at about 70 % of the most you can; pain at most ${r.fine} and calm the next morning.`,
  'dose-prepare-hold': (r) => `Dose: no hold beyond ${r.seconds} s before activity.`,
  'dose-day-rule': (r, ref) =>
    `Dose: the least there is; ${nameOf(ref, r.region).toLowerCase()} hurts today.`,
  'dose-stretch-cap': (r) => `Dose: at most ${r.seconds} s a side before activity (school).`,
  'dose-as-it-stands': (r) =>
    `Dose: ${r.amount} as it stands, by hand or by earlier decisions; the rules would start with ${r.byRule}.`,
  'short-side-only': (r) => `Only the ${SIDE_LABEL[r.side]} side: ${OTHER_SIDE[r.other]}.`,
  'extra-set': (r) => `One set more on the ${SIDE_LABEL[r.side]} side, which is shorter.`,
  rehearses: (r, ref) =>
    `Rehearses today’s action: ${nameOf(ref, r.pattern).toLowerCase()} (match ${r.match}).`,
  readies: (r, ref) => {
    const element = ref.elements.get(r.element);
    const whole = r.match >= 0.7 ? '' : ' It does so in part.';
    if (!element) return `Asked for by what follows.${whole}`;
    const said = element.for.charAt(0).toUpperCase() + element.for.slice(1);
    return `${said.endsWith('.') ? said : `${nameOf(ref, element.regions[0] ?? '')}: ${element.for}.`}${whole}`;
  },
  'prepares-action': (r, ref) =>
    `Wakes what today’s action works with: ${nameOf(ref, r.pattern).toLowerCase()}.`,
  preferred: () => 'Kept from the routine this one starts from.',
  'load-near-limit': (r, ref) =>
    `${nameOf(ref, r.region)}: ${number(r.load, 1)} of ${number(r.limit, 0)} load-minutes in seven days, near the limit set; ${r.held === true ? 'no extra conditioning there (school). A count, not a prediction' : 'please confirm extra conditioning there'}.`,
  'no-drill-known': () => 'No drill of the library serves it.',
  'only-other-side-has-more': () =>
    'This side has what it needs and only the other one has more: that alone is not stretched or mobilised.',
  'general-routine': () => 'General routine: nothing screened yet, built from tasks and injury history.',
  'precaution-review-due': (r, ref) =>
    `${nameOf(ref, r.precaution)} was due for review${r.until ? ` on ${dayText(r.until)}` : ''}; it still binds until a named person ends it.`,
  'confirm-level': (r, ref) => `${nameOf(ref, r.drill)}: starting level by rule, please confirm.`,
  'youth-limits': (r) => `Aged ${r.age}: adult figures do not apply, youth limits do.`,
  'looser-than-source': (r, ref) =>
    `${nameOf(ref, r.drill)} is looser than ${nameOf(ref, r.than).toLowerCase()}, which it comes from: ${r.reason} (${r.by}, ${dayText(r.date)}).`,
  'handle-with-care': (r, ref) =>
    `${nameOf(ref, r.drill)} (${nameOf(ref, r.precaution).toLowerCase()}): ${r.text}`,
  'phase-below-minimum': (r) => `${r.phase}: ${r.drills} of at least ${r.minimum} drills.`,
  'phase-share': (r) => `${r.phase}: ${percent(r.share)} of the time, ${percent(r.wanted)} meant.`,
  'sore-above-limit': (r, ref) =>
    `${nameOf(ref, r.region)} hurts ${r.pain}/10 today, above the limit of ${r.limit}: it is left alone, and somebody should look at it.`,
  'out-of-focus': (r, ref) =>
    `Today looks after other joints than the ${nameOf(ref, r.region).toLowerCase()}.`,
  'no-more-drills': (r) => `${r.maxDrills} drills are in, as many as asked for.`,
  'held-by-pain': (r, ref) => `${nameOf(ref, r.region)} hurts today.`,
  'held-by': (r) =>
    `${r.drills} drills are out: ${HELD_BY[r.because] ?? RULE_WORD[r.because].replace(/:$/, '')}.`,
  watch: (r, ref) =>
    `Watch: ${nameOf(ref, r.region).toLowerCase()} hurts ${r.pain}/10; ask again afterwards.`,
  'by-school': (r, ref) => `Method: ${optionLabel(ref, r.school, r.option)}.`,
  'tendon-trial': () =>
    'Long holds are on trial for two weeks: score the pain before and after, and keep them only if it falls by 2 or more.',
  'no-room': (r) => NO_ROOM[r.bound](r),
  'ends-soft': (r) => ENDS_SOFT[r.against],
  'room-left': () => 'There is room for it: nothing here answers it yet.',
  'away-from-today': () =>
    'Left out: what would answer it lies away from what follows and from what was found.',
  'no-drill-allowed': (r, ref) =>
    `No drill may be used; nearest is ${nameOf(ref, r.drill)}: ${because(r, ref)} (${r.drills} ${r.drills === 1 ? 'drill' : 'drills'}).`,
  'pain-above-limit': (r) =>
    `Pain ${r.pain}/10 ${r.morning ? 'the morning after' : 'on'} ${dayText(r.date)}, above the limit of ${r.limit}.`,
  'pain-above-limit-twice': (r) =>
    `Pain above the limit of ${r.limit} in two sessions running: stop this drill and refer.`,
  'pain-above-limit-often': (r) =>
    `Pain above the limit of ${r.limit} in ${r.times} of the last ${r.among} sessions: stop this drill and refer.`,
  'pain-amber-twice': (r) => `Pain above ${r.fine}/10 twice running.`,
  'pain-amber': (r) => `Pain ${r.pain}/10, above the fine limit of ${r.fine}: not a clean session.`,
  'worse-next-day': (r) =>
    `Worse next day ${r.times}× running: ${r.before} before, ${r.after} the day after (more than +${r.tolerance}).`,
  'tendon-trial-result': (r, ref) =>
    `Long holds on trial: the movement that hurts the ${nameOf(ref, r.region).toLowerCase()} fell by ${number(r.fall, 1)} of 10 in the middle of ${r.sessions} scored sessions; ${number(r.wanted, 0)} keep them, so they ${r.held ? 'stay' : 'go'}.`,
  'tendon-trial-open': (r, ref) =>
    `Long holds on trial for the ${nameOf(ref, r.region).toLowerCase()}: ${r.sessions} sessions scored before and after in ${r.days} days; not enough to judge yet.`,
  'calm-mornings': (r) =>
    `A painful position is restored: ${r.done} of ${r.wanted} sessions running that were calm the next morning.`,
  'long-break': (r) => `${r.days} days without it: ${r.steps === 2 ? 'two steps' : 'one step'} easier.`,
  'long-break-anew': (r) => `${r.days} days without it: begun again at its first level.`,
  'mornings-unknown': (r) =>
    `How the next morning was is not known of ${r.sessions} ${r.sessions === 1 ? 'session' : 'sessions'}: ask before it gets harder.`,
  'hurts-now': (r, ref) =>
    `${nameOf(ref, r.region)} hurts ${r.pain}/10, above the fine limit of ${r.fine}: nothing of it gets harder.`,
  'injury-since': (r, ref) =>
    `${nameOf(ref, r.region)} was hurt on ${dayText(r.date)}: first calm sessions since then.`,
  'real-loss': (r, ref) =>
    `${nameOf(ref, r.test)} ${SIDE_LABEL[r.side].toLowerCase()} got worse by ${figure(Math.abs(r.difference), unitOf(ref, r.test))}, a real loss: nothing gets harder on it.`,
  'light-span': (r) => `Marked light until ${dayText(r.until)} (${r.why}): nothing gets harder.`,
  restored: (r, ref) =>
    `${nameOf(ref, r.restriction)} is no longer short: keep it as it is, once or twice a week.`,
  'hardened-lately': (r, ref) =>
    `Something ${r.proposed ? 'else ' : ''}of the ${nameOf(ref, r.region).toLowerCase()} ${r.proposed ? 'gets harder now' : `was made harder on ${dayText(r.on)}`}: one thing at a time, ${r.days} days apart.`,
  'days-off': (r) => `${r.days} days since the last session (at most ${r.most} for an advance).`,
  'no-sessions-yet': () => 'No session yet at this prescription.',
  'part-done': () => 'Only part was done last time.',
  'poor-quality': (r) => `Quality ${r.quality} of 3 last time.`,
  'effort-too-high': (r) => `Effort ${r.effort}/10, at most ${r.most} for the next step.`,
  'clean-sessions': (r) => `${r.done} of ${r.wanted} clean sessions at this prescription.`,
  'beyond-handling': (r, ref) =>
    `${nameOf(ref, r.precaution)}: it goes further than its handling allows; back to ${r.most}.`,
  'easiest-already': () => 'It is at its easiest already: leave it out.',
  'towards-criterion': (r) => `Clean sessions done; next towards ${r.sets} × ${r.amount}.`,
  'share-of-maximum-reached': (r) => `${r.amount} is as near to the tested maximum as this mode allows.`,
  'set-up-one-step': (r) =>
    `Amount reached; ${r.variable.toLowerCase()} to ${r.to}${r.unit ? ` ${r.unit}` : ''}.`,
  'level-criteria-met': (r, ref) => `Amount and set-up reached; next level: ${nameOf(ref, r.drill)}.`,
  'guard-test': (r, ref) =>
    r.probability === null
      ? `${nameOf(ref, r.test)} not tested yet; it guards the next level (at least ${gateText(r, ref)}).`
      : `${nameOf(ref, r.test)} at least ${gateText(r, ref)} with ${percent(r.probability)}; ${percent(r.wanted)} wanted.`,
  'top-of-ladder': (r, ref) => `Top of the ladder "${nameOf(ref, r.ladder)}".`,
  'eased-recently': (r, ref) => `${nameOf(ref, r.drill)} was tried within ${r.days} days; not yet again.`,
  'next-level-not-offered': (r, ref) => `${nameOf(ref, r.drill)} is not offered: ${because(r, ref)}.`,
  'no-longer-allowed': (r, ref) => `No longer allowed: ${because(r, ref)}.`,
  'region-raised-this-week': (r, ref) =>
    `${nameOf(ref, r.region)} already gets over ${percent(r.share)} more this week: one thing at a time.`,
  'screening-change': (r, ref) => {
    const lower = ref.tests.get(r.test)?.better === 'lower';
    const way = r.difference < 0 ? 'loss' : 'gain';
    const real =
      r.real === 'yes'
        ? `a real ${way}`
        : r.real === 'possibly'
          ? `possibly a ${way}`
          : 'within the error of the test';
    // The figure is the reading's own; whether more of it is better is said in words.
    const change = signedFigure(lower ? -r.difference : r.difference, unitOf(ref, r.test));
    return `${nameOf(ref, r.test)}${r.side === 'central' ? '' : ` ${SIDE_LABEL[r.side]}`}: ${change} since last time, ${real}.`;
  },
  'better-use-of-time': () => 'Other drills do more in the minutes there are.',
  'forbidden-today': (r, ref) => `${nameOf(ref, r.drill)} must not be done today: ${because(r, ref)}.`,
  'not-at-hand': (r, ref) => `${nameOf(ref, r.drill)}: ${because(r, ref)}.`,
  'static-before-activity': (r, ref) =>
    `${nameOf(ref, r.drill)} is a static stretch; the school avoids it before activity.`,
  'static-too-long': (r, ref) =>
    `${r.seconds} s of static stretch a side before activity (${nameOf(ref, r.drill).toLowerCase()} first); at most ${r.most} s in all (school).`,
  'no-movement-after-hold': (r, ref) =>
    `No movement after ${nameOf(ref, r.drill).toLowerCase()}; a short hold needs some (school).`,
  'cooled-down': (r, ref) =>
    `${number(r.minutes, 0)} min after the last warming drill (${nameOf(ref, r.drill).toLowerCase()}); beyond ${r.most} min much of it is gone.`,
  'never-warmed': () => 'Nothing in it raises the temperature.',
  'beyond-range': (r, ref) =>
    `${nameOf(ref, r.drill)} goes beyond its usual range (most ${r.most}), and no maximum was tested.`,
  'too-many-sets': (r, ref) => `${nameOf(ref, r.drill)}: ${r.sets} sets; at most ${r.most} are meant.`,
  'drill-repeated': (r, ref) => `${nameOf(ref, r.drill)} stands in the routine more than once.`,
  'too-close-to-failure': (r, ref) =>
    `${nameOf(ref, r.drill)} uses ${percent(r.share)} of the tested maximum (${nameOf(ref, r.test).toLowerCase()}); ${percent(r.allowed ?? 1)} is meant here.`,
  'weak-side-forgotten': (r, ref) =>
    `${nameOf(ref, r.drill)} gives the ${SIDE_LABEL[r.side]} side less, though it is the shorter one.`,
  'too-hard': (r, ref) =>
    `${nameOf(ref, r.drill)}: seen as too hard${r.by ? ` by ${r.by}` : ''}${r.date ? ` on ${dayText(r.date)}` : ''}.`,
  'same-level-again': (r, ref) =>
    `${nameOf(ref, r.next)} is open (${r.by === 'placement' ? 'placed there' : 'criteria met'}), yet ${nameOf(ref, r.drill).toLowerCase()} is repeated.`,
  'same-tissue-twice': (r, ref) =>
    `${nameOf(ref, r.before)} and ${nameOf(ref, r.drill).toLowerCase()} work the same tissue one after the other.`,
  'phase-order': (r, ref) =>
    `${nameOf(ref, r.drill)} stands before a drill of the earlier phase "${r.phase}".`,
  'two-of-one-ladder': (r, ref) =>
    `${nameOf(ref, r.other)} and ${nameOf(ref, r.drill).toLowerCase()} are levels of one ladder.`,
  'action-missing': (r, ref) =>
    `Nothing here rehearses ${nameOf(ref, r.pattern).toLowerCase()}, which follows.`,
  'words-unchecked': (r) =>
    r.lines === 1
      ? 'One line is in own words: precautions and rules of the day cannot be checked on it.'
      : `${r.lines} lines are in own words: precautions and rules of the day cannot be checked on them.`,
  'caution-says-no': (r, ref) => `The list says “${r.says}”; ${nameOf(ref, r.drill).toLowerCase()} is one.`,
  'turn-too-long': (r, ref) =>
    `${nameOf(ref, r.drill)}: a turn takes ${r.seconds} s, and the next one starts after ${r.most} s.`,
  'rounds-would-fit': (r) =>
    `${r.drills} drills of ${r.rounds} sets with rests between: in rounds one rests while the other is done, ${duration(r.seconds)} less.`,
  'over-time': (r) => `${duration(r.over)} over the ${r.minutes} min there are.`,
  'repair-swap': (r, ref) => `Take ${nameOf(ref, r.instead).toLowerCase()} instead`,
  'repair-remove': (r, ref) => `Take out ${nameOf(ref, r.drill).toLowerCase()}`,
  'repair-one-side': (r) => `Only the ${SIDE_LABEL[r.side]} side`,
  'repair-shorten': (r) => `One hold of ${r.seconds} s each`,
  'repair-move-before': (r, ref) => `Put it before ${nameOf(ref, r.before).toLowerCase()}`,
  'eased-sore': (r, ref) =>
    `${nameOf(ref, r.region)} hurts ${r.pain}/10 today: the least dose${r.sets === undefined ? '' : `, ${r.sets} ${r.sets === 1 ? 'set' : 'sets'} at most`}.`,
  'eased-tired': () => 'Slept badly: a set less of what is hard.',
  'no-room-today': (r, ref) => `No room for ${nameOf(ref, r.drill).toLowerCase()} today.`,
  'calm-start': () => 'Tense today: a quiet start.',
  'gentle-first': (r, ref) =>
    `${nameOf(ref, r.region)} hurts ${r.pain}/10 today: a gentle drill of it before anything else.`,
  'longer-ramp': (r) => `${r.slept ? 'Slept badly' : 'Something is sore'}: warming up takes a little longer.`,
  'still-warm': (r) =>
    `Warm ${r.minutes === 0 ? 'already' : `until ${r.minutes} min ago`}: warming up takes less.`,
  'short-today': (r) => `Only ${r.minutes} min today.`,
  'repair-pace': (r) => `A start every ${r.seconds} s`,
  'repair-rounds': (r) => `In ${r.rounds} rounds, ${duration(r.seconds)} less`,
  'repair-add': (r, ref) => `Add ${nameOf(ref, r.drill).toLowerCase()}`,
  'repair-fewer-sets': (r) => `Down to ${r.sets} sets`,
  'repair-lower': (r) => `Lower to ${r.amount}`,
  'repair-weak-side': (r) => `Do the ${SIDE_LABEL[r.side]} side as well`,
  'repair-setup': (r) => `Set ${r.variable.toLowerCase()} to ${r.to}`,
  'repair-easier-level': (r, ref) => `Go back to ${nameOf(ref, r.easier).toLowerCase()}`,
  'repair-next-level': (r, ref) => `Go on to ${nameOf(ref, r.next).toLowerCase()}`,
  'repair-reorder': () => 'Part them',
  'repair-order': () => 'Put into order',
  'repair-cut': (r) =>
    r.drills === 0
      ? 'Fit in with fewer sets'
      : `Fit in: fewer sets, ${r.drills} ${r.drills === 1 ? 'drill' : 'drills'} less`,
  'unknown-drill': (r) => `Unknown drill ${r.drill}.`,
  'item-changed': ({ before, after }, ref) =>
    `${itemName(ref, after)}: ${itemChange(ref, before, after) || 'unchanged'}`,
  'item-replaced': ({ before, after }, ref) =>
    `${nameOf(ref, before.drill)} → ${itemName(ref, after)}, ${amountText(after)}`,
  'item-added': ({ item }, ref) => `Added: ${itemName(ref, item)}, ${amountText(item)}`,
  'item-removed': (r, ref) => `Removed: ${itemName(ref, r)}`,
  'order-changed': () => 'Order changed',
  'as-written': (r) => r.text,
};

/** A reason in one plain sentence. */
export function reasonText(reference: Reference, reason: Reason): string {
  const words = WORDS[reason.rule] as (reason: Reason, reference: Reference) => string;
  return words(reason, reference);
}

/** Why a drill cannot be used: "kit not at hand: long band". */
export function ruleText(reference: Reference, rule: Barrier, about: string): string {
  return because({ because: rule, about }, reference);
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
      return `${names[0] ?? ''} is pinned, but ${ruleText(reference, rule as Barrier, clash.about[1] ?? '')}.`;
  }
}
