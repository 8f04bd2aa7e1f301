import { describe, expect, it } from 'vitest';
import { REASON_FIGURES } from '../reasons/figures.ts';
import type { ReasonOf, Rule } from '../reasons/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { item } from '../testing/cases.ts';
import { reasonText } from './index.ts';
import { eachOf } from '../testing/eachOf.ts';

type Given<Shape> = { [K in keyof Shape as undefined extends Shape[K] ? never : K]: Shape[K] } & {
  [K in keyof Shape as undefined extends Shape[K] ? K : never]?: Shape[K];
};
/** The figures of a rule; those that may be missing may be left out. */
type Figures<R extends Rule> = Given<Omit<ReasonOf<R>, 'rule'>>;

/** Every rule with figures and the sentence somebody should read; rules that say different things have more than one. */
const SENTENCES: { readonly [R in Rule]: readonly (readonly [Figures<R>, string])[] } = {
  'short-of-need': [
    [
      {
        test: 'wblt-distance',
        side: 'left',
        estimate: 7.1,
        need: 9,
        source: 'task',
        sourceId: 'fell-running-descent',
        reserve: -1.9,
        margin: -1.1,
        pShort: 0.97,
        state: 'short',
      },
      'Weight-bearing lunge test, toe-to-wall distance: 7.1 cm against 9.0 cm needed (asked by Steep descent running); reserve −1.9 cm, short with 97 %.',
    ],
    [
      {
        test: 'heel-raise-reps',
        side: 'right',
        estimate: 22.4,
        need: 25,
        source: 'trend',
        sourceId: '2027-01-05',
        reserve: -2.6,
        margin: -0.4,
        pShort: 0.81,
        state: 'likely-short',
      },
      'Single-leg heel-raise endurance: 22 reps against 25 reps needed (as on 5 Jan 2027); reserve −3 reps, short with 81 %.',
    ],
  ],
  'short-of-other-side': [
    [
      {
        test: 'wblt-distance',
        side: 'left',
        estimate: 7.1,
        need: 9,
        source: 'symmetry',
        sourceId: 'right',
        reserve: -1.9,
        margin: -1.1,
        pShort: 0.97,
        state: 'short',
      },
      'Weight-bearing lunge test, toe-to-wall distance: 7.1 cm, at least 9.0 cm wanted beside the right side; short with 97 %.',
    ],
  ],
  'need-inside-error': [
    [
      { test: 'single-leg-balance-ec', need: 8, mdc95: 11 },
      'The need of 8.0 s lies inside the error of the test (11.0 s): no single reading can show that it is missed.',
    ],
  ],
  'reading-apart': [
    [
      { test: 'wblt-angle', value: 40.5, estimate: 37, error: 2.7 },
      'The latest reading, 40.5°, and the estimate over all visits, 37.0°, lie further apart than a reading errs (2.7°): measure again.',
    ],
  ],
  'tests-disagree': [
    [
      {
        short: 'step-down-quality',
        enough: 'hip-abduction-strength',
        measured: 'hip-abduction-strength',
        settle: 'hip-abduction-strength',
        again: true,
      },
      'Two tests contradict: Lateral step-down quality says short, Eccentric hip abduction strength, side-lying says enough. Eccentric hip abduction strength, side-lying measures it directly and counts more. Measure again: Eccentric hip abduction strength, side-lying.',
    ],
    [
      { short: 'wblt-distance', enough: 'wblt-angle', measured: null, settle: 'wblt-angle', again: false },
      'Two tests contradict: Weight-bearing lunge test, toe-to-wall distance says short, Weight-bearing lunge test, shin angle says enough. Would settle it: Weight-bearing lunge test, shin angle.',
    ],
  ],
  'symmetry-capped': [
    [
      { test: 'wblt-distance' },
      'This side meets its own need; only the other side speaks, so severity is capped at 0.3.',
    ],
  ],
  'youth-figures': [
    [
      { age: 16 },
      'Under 16 adult figures are not used; what counts is the other side, the last visit, grades, pain and needs set by hand. It counts at most half.',
    ],
  ],
  'pain-limited': [
    [{ test: 'wblt-distance', limit: 2 }, 'Taken with pain above 2/10: read it as pain-limited.'],
  ],
  'estimate-restarted': [
    [{ because: 'injury', date: '2027-02-20' }, 'The estimate starts anew on 20 Feb 2027 (injury).'],
    [
      { because: 'long-break', date: '2027-02-20' },
      'The estimate starts anew on 20 Feb 2027 (more than a year without a result).',
    ],
    [
      { because: 'real-loss', date: '2027-02-20' },
      'The estimate starts anew on 20 Feb 2027 (a loss beyond the error of the test).',
    ],
    [
      { because: 'real-change', date: '2027-02-20' },
      'The estimate starts anew on 20 Feb 2027 (two results running beyond the error of the test).',
    ],
  ],
  'from-before-injury': [
    [
      { test: 'heel-raise-reps', date: '2027-02-20' },
      'Single-leg heel-raise endurance is from before the injury of 20 Feb 2027: it opens no level and gives no dose until it is measured again.',
    ],
  ],
  'single-visit': [[{ test: 'wblt-distance' }, 'Rests on one visit; a repeat would make it firmer.']],
  'task-relevant': [[{ factor: 1 }, 'A chosen task asks for it (factor 1).']],
  'not-asked-by-task': [[{ factor: 0.7 }, 'No chosen task asks for it (factor 0.7).']],
  'injury-history': [[{ region: 'knee', factor: 1.25 }, 'Knee injured within 24 months (factor 1.25).']],
  'seen-by-eye': [
    [
      { by: 'R. Halloran', date: '2027-02-20', degree: 'clear' },
      'Seen by eye (clear) by R. Halloran on 20 Feb 2027; not measured.',
    ],
  ],
  confirmed: [[{ by: 'R. Halloran', date: '2027-02-20' }, 'Confirmed by R. Halloran on 20 Feb 2027.']],
  dismissed: [
    [
      { by: 'R. Halloran', date: '2027-02-20', reason: 'tested after a race' },
      'Set aside by R. Halloran on 20 Feb 2027: tested after a race. It counts again once it is measured anew.',
    ],
  ],
  'test-never-done': [[{ openness: 0.4, minutes: 2 }, 'Never done; takes 2 min 00 s.']],
  'test-undecided': [[{ openness: 0.4, minutes: 1.5 }, 'The last result leaves it open; takes 1 min 30 s.']],
  'task-asks-for-test': [[{ test: 'wblt-distance' }, 'A chosen task asks for it.']],
  'region-injured': [[{ region: 'knee' }, 'Knee was injured within 24 months.']],
  serves: [
    [
      { restriction: 'ankle-dorsiflexion-limit', side: 'left', match: 0.9, weight: 0.62, from: 'finding' },
      'Serves ankle dorsiflexion range, left (match 0.9, priority 0.62).',
    ],
    [
      { restriction: 'ankle-dorsiflexion-limit', side: 'central', match: 0.5, weight: 0.6, from: 'injury' },
      'Serves ankle dorsiflexion range (match 0.5, asked by the injury history).',
    ],
    [
      { restriction: 'ankle-dorsiflexion-limit', side: 'right', match: 0.5, weight: 0.4, from: 'task' },
      'Serves ankle dorsiflexion range, right (match 0.5, asked by the tasks).',
    ],
    [
      { restriction: 'ankle-dorsiflexion-limit', side: 'right', match: 0.5, weight: 0.5, from: 'pain' },
      'Serves ankle dorsiflexion range, right (match 0.5, it hurts).',
    ],
  ],
  rehearses: [[{ pattern: 'run', match: 0.9 }, 'Rehearses today’s action: run (match 0.9).']],
  readies: [
    [{ element: 'run-hip-front', match: 1 }, 'The leg that pushes off needs a free hip behind the body.'],
    [{ element: 'knee-2', match: 0.5 }, 'Knee: front thigh. It does so in part.'],
    [{ element: 'no-such', match: 1 }, 'Asked for by what follows.'],
  ],
  'prepares-action': [[{ pattern: 'run', match: 0.9 }, 'Wakes what today’s action works with: run.']],
  'fills-phase': [
    [{ phase: 'Mobilise' }, 'Fills the phase "Mobilise"; general and dynamic, serves no listed restriction.'],
  ],
  'chosen-by-hand': [[{ drill: 'knee-to-wall-rock' }, 'Chosen by the practitioner.']],
  pinned: [[{ drill: 'knee-to-wall-rock' }, 'Pinned by the practitioner.']],
  preferred: [[{ drill: 'knee-to-wall-rock' }, 'Kept from the routine this one starts from.']],
  'level-criteria': [
    [{ drill: 'knee-to-wall-rock', confirm: true }, 'Level: the entry criteria are met by tests and diary.'],
  ],
  'level-harder-rung': [
    [
      { drill: 'copenhagen-short-lever', confirm: false },
      'Level: a maximum tested at this level or a harder one reaches its least dose.',
    ],
  ],
  'level-placement': [
    [{ drill: 'knee-to-wall-rock', confirm: true }, 'Level: seen fine by the practitioner.'],
  ],
  'level-routine': [
    [{ drill: 'knee-to-wall-rock', confirm: true }, 'Level: already in the routine in force.'],
  ],
  'level-first-level': [[{ drill: 'knee-to-wall-rock', confirm: true }, 'Level: the first of its ladder.']],
  'level-start-rule': [[{ drill: 'knee-to-wall-rock', confirm: true }, 'Level: start rule, please confirm.']],
  'level-exposure': [
    [
      { drill: 'knee-to-wall-rock', confirm: true },
      'Level: opened by what is done every week, please confirm.',
    ],
  ],
  'level-pin': [[{ drill: 'knee-to-wall-rock', confirm: true }, 'Level: opened by the pin, please confirm.']],
  'dose-from-maximum': [
    [
      { test: 'heel-raise-reps', maximum: 14, share: 0.75, wanted: 10 },
      'Dose: 75 % of the tested 14 reps (Single-leg heel-raise endurance).',
    ],
  ],
  'dose-lower-half': [
    [
      { min: 8, max: 12 },
      'Dose: lower half of 8–12, kept low before activity; there is no fresh maximum to go by.',
    ],
  ],
  'dose-growing': [[{ min: 8, max: 12 }, 'Dose: lower half of 8–12; still growing.']],
  'dose-one-bout': [
    [{ min: 90, max: 300, amount: 120 }, 'One bout of 120 s, without rests; the drill takes 90 to 300 s.'],
  ],
  'dose-default': [[{ amount: 9 }, "Dose: the drill's usual 9; no fresh maximum."]],
  'dose-stretch-cap': [[{ seconds: 30 }, 'Dose: at most 30 s a side before activity (school).']],
  'dose-tendon-hold': [
    [
      { seconds: 45, fine: 2 },
      'Dose: holds of 45 s for a tendon that hurts, at about 70 % of the most you can; pain at most 2 and calm the next morning.',
    ],
  ],
  'dose-prepare-hold': [[{ seconds: 10 }, 'Dose: no hold beyond 10 s before activity.']],
  'dose-day-rule': [[{ region: 'knee' }, 'Dose: the least there is; knee hurts today.']],
  'dose-as-it-stands': [
    [
      { amount: 9, byRule: 8 },
      'Dose: 9 as it stands, by hand or by earlier decisions; the rules would start with 8.',
    ],
  ],
  'short-side-only': [
    [{ side: 'left', other: 'enough' }, 'Only the left side: the other was measured and is enough.'],
    [
      { side: 'right', other: 'short' },
      'Only the right side: the other is short as well and is served elsewhere or has to wait.',
    ],
    [{ side: 'right', other: 'not-measured' }, 'Only the right side: the other was not measured.'],
    [
      { side: 'right', other: 'not-offered' },
      'Only the right side: the other is left to the treating clinician’s protocol.',
    ],
    [
      { side: 'right', other: 'partly-measured' },
      'Only the right side: of the other not all was measured, and nothing of it is known to be short.',
    ],
    [{ side: 'left', other: 'hurts' }, 'Only the left side: the other hurts too much today.'],
    [{ side: 'left', other: 'referred' }, 'Only the left side: the other is to be looked at first.'],
    [{ side: 'left', other: 'precaution' }, 'Only the left side: a precaution closes the other.'],
  ],
  'extra-set': [[{ side: 'left' }, 'One set more on the left side, which is shorter.']],
  'not-offered': [
    [
      { drill: 'knee-to-wall-rock', because: 'kit', about: 'long-band' },
      'Not offered by the builder: kit not at hand: long band.',
    ],
  ],
  'no-drill-known': [[{ restriction: 'ankle-dorsiflexion-limit' }, 'No drill of the library serves it.']],
  'only-other-side-has-more': [
    [
      { restriction: 'shoulder-flexion-limit' },
      'This side has what it needs and only the other one has more: that alone is not stretched or mobilised.',
    ],
  ],
  'no-drill-allowed': [
    [
      { drill: 'band-ankle-mobilisation', because: 'kit', about: 'long-band', drills: 3 },
      'No drill may be used; nearest is Band-assisted ankle rock: kit not at hand: long band (3 drills).',
    ],
    [
      { drill: 'cat-camel', because: 'timing', about: 'prepare', drills: 1 },
      'No drill may be used; nearest is Cat-camel: not meant for prepare (1 drill).',
    ],
  ],
  'no-room': [
    [
      { minutes: 12, maxDrills: 6, bound: 'time', phase: 'Prehab' },
      'No room: the 12 min are used; more minutes would let it in.',
    ],
    [
      { minutes: 12, maxDrills: 6, bound: 'drills', phase: 'Prehab' },
      'No room: 6 drills are as many as 12 min hold here.',
    ],
    [
      { minutes: 12, maxDrills: 6, bound: 'phase', phase: 'Prehab' },
      'No room: “Prehab” holds no more drills.',
    ],
    [
      { minutes: 12, maxDrills: 6, bound: 'ladder', phase: 'Prehab' },
      'A drill of the same ladder is in already.',
    ],
    [
      { minutes: 12, maxDrills: 6, bound: 'effort', phase: 'Prehab' },
      'No room: it would be more effort or more contacts than the routine may hold.',
    ],
    [
      { minutes: 12, maxDrills: 6, bound: 'method', phase: '' },
      'No room: the method chosen for today holds no more of its kind, or wants another drill before it.',
    ],
    [{ minutes: 12, maxDrills: 6, bound: 'relief', phase: '' }, 'Not before a gentle drill of what hurts.'],
    [
      { minutes: 12, maxDrills: 6, bound: 'graded', phase: '' },
      'One graded drill into the painful position is enough for one day.',
    ],
    [{ minutes: 12, maxDrills: 6, bound: 'alone', phase: '' }, 'Left out: nothing else of its region is in.'],
  ],
  'ends-soft': [
    [{ against: 'age' }, 'Never under 16.'],
    [{ against: 'breathing' }, 'Not with a limit of breathing on exertion.'],
    [{ against: 'injury' }, 'Not within six months of an injury.'],
  ],
  'room-left': [[{}, 'There is room for it: nothing here answers it yet.']],
  'away-from-today': [
    [{}, 'Left out: what would answer it lies away from what follows and from what was found.'],
  ],
  'sore-above-limit': [
    [
      { region: 'knee', pain: 6, limit: 5 },
      'Knee hurts 6/10 today, above the limit of 5: it is left alone, and somebody should look at it.',
    ],
  ],
  'out-of-focus': [[{ region: 'knee' }, 'Today looks after other joints than the knee.']],
  'no-more-drills': [[{ maxDrills: 6 }, '6 drills are in, as many as asked for.']],
  'held-by-pain': [[{ region: 'knee' }, 'Knee hurts today.']],
  'held-by': [
    [{ because: 'kit', drills: 3 }, '3 drills are out: their kit is not at hand.'],
    [{ because: 'level', drills: 40 }, '40 drills are out: their level is not open yet.'],
    [{ because: 'position', drills: 40 }, '40 drills are out: their position is ruled out.'],
    [{ because: 'space', drills: 40 }, '40 drills are out: there is no room for them.'],
    [{ because: 'school', drills: 40 }, '40 drills are out: the methods chosen rule them out.'],
    [{ because: 'focus', drills: 40 }, '40 drills are out: they are for other joints than today’s.'],
    [
      { because: 'protocol', drills: 40 },
      '40 drills are out: after an operation only ticked drills are given.',
    ],
    [{ because: 'precaution-exclude', drills: 40 }, '40 drills are out: a precaution forbids them.'],
    [{ because: 'ban', drills: 40 }, '40 drills are out: banned for this routine.'],
  ],
  watch: [[{ region: 'knee', pain: 2 }, 'Watch: knee hurts 2/10; ask again afterwards.']],
  'by-school': [
    [
      { school: 'static-stretch-before', option: 'avoid' },
      'Method: Avoid it before power and speed; dynamic range only.',
    ],
  ],
  'tendon-trial': [
    [
      {},
      'Long holds are on trial for two weeks: score the pain before and after, and keep them only if it falls by 2 or more.',
    ],
  ],
  'better-use-of-time': [[{ drill: 'knee-to-wall-rock' }, 'Other drills do more in the minutes there are.']],
  'general-routine': [[{}, 'General routine: nothing screened yet, built from tasks and injury history.']],
  'precaution-review-due': [
    [
      { precaution: 'no-impact', until: '2027-02-01' },
      'No jumping or running was due for review on 1 Feb 2027; it still binds until a named person ends it.',
    ],
    [
      { precaution: 'no-impact', until: null },
      'No jumping or running was due for review; it still binds until a named person ends it.',
    ],
  ],
  'load-near-limit': [
    [
      { region: 'knee', load: 84.2, limit: 90, held: true },
      'Knee: 84.2 of 90 load-minutes in seven days, near the limit set; no extra conditioning there (school). A count, not a prediction.',
    ],
    [
      { region: 'knee', load: 80, limit: 90, held: false },
      'Knee: 80.0 of 90 load-minutes in seven days, near the limit set; please confirm extra conditioning there.',
    ],
  ],
  'confirm-level': [
    [{ drill: 'knee-to-wall-rock' }, 'Knee-to-wall rock: starting level by rule, please confirm.'],
  ],
  'youth-limits': [[{ age: 14 }, 'Aged 14: adult figures do not apply, youth limits do.']],
  'looser-than-source': [
    [
      {
        drill: 'knee-to-wall-rock',
        than: 'ankle-circles',
        by: 'R. Halloran',
        date: '2027-02-20',
        reason: 'no bench in the hut',
      },
      'Knee-to-wall rock is looser than controlled ankle circles, which it comes from: no bench in the hut (R. Halloran, 20 Feb 2027).',
    ],
  ],
  'handle-with-care': [
    [
      { drill: 'knee-to-wall-rock', precaution: 'no-impact', text: 'Land softly.' },
      'Knee-to-wall rock (no jumping or running): Land softly.',
    ],
  ],
  'phase-below-minimum': [
    [{ phase: 'Mobilise', drills: 1, minimum: 2 }, 'Mobilise: 1 of at least 2 drills.'],
  ],
  'phase-share': [
    [{ phase: 'Mobilise', share: 0.35, wanted: 0.25 }, 'Mobilise: 35 % of the time, 25 % meant.'],
  ],
  'pain-above-limit': [
    [
      { pain: 6, limit: 5, date: '2027-02-20', morning: false },
      'Pain 6/10 on 20 Feb 2027, above the limit of 5.',
    ],
    [
      { pain: 6, limit: 5, date: '2027-02-20', morning: true },
      'Pain 6/10 the morning after 20 Feb 2027, above the limit of 5.',
    ],
  ],
  'pain-above-limit-twice': [
    [
      { pain: 6, limit: 5, date: '2027-02-20', morning: false },
      'Pain above the limit of 5 in two sessions running: stop this drill and refer.',
    ],
  ],
  'pain-above-limit-often': [
    [
      { times: 3, among: 5, limit: 5 },
      'Pain above the limit of 5 in 3 of the last 5 sessions: stop this drill and refer.',
    ],
  ],
  'pain-amber-twice': [
    [{ pain: 4, limit: 5, date: '2027-02-20', morning: false, fine: 2 }, 'Pain above 2/10 twice running.'],
  ],
  'pain-amber': [[{ pain: 4, fine: 2 }, 'Pain 4/10, above the fine limit of 2: not a clean session.']],
  'calm-mornings': [
    [
      { done: 1, wanted: 4 },
      'A painful position is restored: 1 of 4 sessions running that were calm the next morning.',
    ],
  ],
  'tendon-trial-result': [
    [
      { region: 'knee', sessions: 4, fall: 1.4, wanted: 2, held: false },
      'Long holds on trial: the movement that hurts the knee fell by 1.4 of 10 in the middle of 4 scored sessions; 2 keep them, so they go.',
    ],
    [
      { region: 'knee', sessions: 4, fall: 2.5, wanted: 2, held: true },
      'Long holds on trial: the movement that hurts the knee fell by 2.5 of 10 in the middle of 4 scored sessions; 2 keep them, so they stay.',
    ],
  ],
  'tendon-trial-open': [
    [
      { region: 'knee', sessions: 4, days: 15 },
      'Long holds on trial for the knee: 4 sessions scored before and after in 15 days; not enough to judge yet.',
    ],
  ],
  'worse-next-day': [
    [
      { times: 2, before: 1, after: 4, tolerance: 1 },
      'Worse next day 2× running: 1 before, 4 the day after (more than +1).',
    ],
  ],
  'long-break': [
    [{ days: 35, steps: 1 }, '35 days without it: one step easier.'],
    [{ days: 65, steps: 2 }, '65 days without it: two steps easier.'],
  ],
  'long-break-anew': [[{ days: 130 }, '130 days without it: begun again at its first level.']],
  'mornings-unknown': [
    [{ sessions: 1 }, 'How the next morning was is not known of 1 session: ask before it gets harder.'],
    [{ sessions: 3 }, 'How the next morning was is not known of 3 sessions: ask before it gets harder.'],
  ],
  'hurts-now': [
    [
      { region: 'knee', pain: 4, fine: 3 },
      'Knee hurts 4/10, above the fine limit of 3: nothing of it gets harder.',
    ],
  ],
  'injury-since': [
    [{ region: 'knee', date: '2027-02-20' }, 'Knee was hurt on 20 Feb 2027: first calm sessions since then.'],
  ],
  'real-loss': [
    [
      { test: 'heel-raise-reps', side: 'left', difference: -12 },
      'Single-leg heel-raise endurance left got worse by 12 reps, a real loss: nothing gets harder on it.',
    ],
  ],
  'light-span': [
    [
      { until: '2027-03-06', why: 'regional final' },
      'Marked light until 6 Mar 2027 (regional final): nothing gets harder.',
    ],
  ],
  restored: [
    [
      { restriction: 'calf-endurance-deficit' },
      'Calf endurance is no longer short: keep it as it is, once or twice a week.',
    ],
  ],
  'hardened-lately': [
    [
      { region: 'knee', on: '2027-02-26', proposed: false, days: 7 },
      'Something of the knee was made harder on 26 Feb 2027: one thing at a time, 7 days apart.',
    ],
    [
      { region: 'knee', on: '2027-03-01', proposed: true, days: 7 },
      'Something else of the knee gets harder now: one thing at a time, 7 days apart.',
    ],
  ],
  'days-off': [[{ days: 15, most: 14 }, '15 days since the last session (at most 14 for an advance).']],
  'no-sessions-yet': [[{ drill: 'knee-to-wall-rock' }, 'No session yet at this prescription.']],
  'part-done': [[{ date: '2027-02-20' }, 'Only part was done last time.']],
  'poor-quality': [[{ quality: 1 }, 'Quality 1 of 3 last time.']],
  'effort-too-high': [[{ effort: 8, most: 7 }, 'Effort 8/10, at most 7 for the next step.']],
  'clean-sessions': [[{ done: 1, wanted: 3 }, '1 of 3 clean sessions at this prescription.']],
  'beyond-handling': [
    [
      { precaution: 'acute-adductor-strain', most: 30 },
      'Acute groin strain: it goes further than its handling allows; back to 30.',
    ],
  ],
  'easiest-already': [[{ drill: 'knee-to-wall-rock' }, 'It is at its easiest already: leave it out.']],
  'towards-criterion': [[{ amount: 9, sets: 2 }, 'Clean sessions done; next towards 2 × 9.']],
  'share-of-maximum-reached': [[{ amount: 9 }, '9 is as near to the tested maximum as this mode allows.']],
  'set-up-one-step': [
    [
      { variable: 'Foot distance from wall', to: 8, unit: 'cm' },
      'Amount reached; foot distance from wall to 8 cm.',
    ],
    [{ variable: 'Band', to: 'firm', unit: null }, 'Amount reached; band to firm.'],
  ],
  'level-criteria-met': [
    [{ drill: 'knee-to-wall-rock' }, 'Amount and set-up reached; next level: Knee-to-wall rock.'],
  ],
  'guard-test': [
    [
      { test: 'heel-raise-reps', gate: 20, probability: 0.71, wanted: 0.8, holds: false },
      'Single-leg heel-raise endurance at least 20 reps with 71 %; 80 % wanted.',
    ],
    [
      { test: 'heel-raise-reps', gate: 20, probability: null, wanted: 0.8, holds: false },
      'Single-leg heel-raise endurance not tested yet; it guards the next level (at least 20 reps).',
    ],
  ],
  'top-of-ladder': [[{ ladder: 'calf-strength' }, 'Top of the ladder "Heel-raise strength".']],
  'eased-recently': [
    [{ drill: 'knee-to-wall-rock', days: 15 }, 'Knee-to-wall rock was tried within 15 days; not yet again.'],
  ],
  'next-level-not-offered': [
    [
      { drill: 'knee-to-wall-rock', because: 'kit', about: 'long-band' },
      'Knee-to-wall rock is not offered: kit not at hand: long band.',
    ],
  ],
  'no-longer-allowed': [
    [{ because: 'kit', about: 'long-band' }, 'No longer allowed: kit not at hand: long band.'],
  ],
  'region-raised-this-week': [
    [{ region: 'knee', share: 0.1 }, 'Knee already gets over 10 % more this week: one thing at a time.'],
  ],
  'screening-change': [
    [
      { test: 'wblt-distance', side: 'left', difference: 2.2, real: 'yes' },
      'Weight-bearing lunge test, toe-to-wall distance left: +2.2 cm since last time, a real gain.',
    ],
    [
      { test: 'wblt-distance', side: 'central', difference: -1.4, real: 'possibly' },
      'Weight-bearing lunge test, toe-to-wall distance: −1.4 cm since last time, possibly a loss.',
    ],
    [
      { test: 'wblt-distance', side: 'right', difference: 0.2, real: 'no' },
      'Weight-bearing lunge test, toe-to-wall distance right: +0.2 cm since last time, within the error of the test.',
    ],
    // Lower is better: what went up is a loss.
    [
      { test: 'adductor-squeeze-pain', side: 'central', difference: -2, real: 'yes' },
      'Five-second adductor squeeze, groin pain: +2/10 since last time, a real loss.',
    ],
  ],
  'unknown-drill': [[{ drill: 'knee-to-wall-rock' }, 'Unknown drill knee-to-wall-rock.']],
  'forbidden-today': [
    [
      { drill: 'knee-to-wall-rock', because: 'kit', about: 'long-band' },
      'Knee-to-wall rock must not be done today: kit not at hand: long band.',
    ],
  ],
  'not-at-hand': [
    [
      { drill: 'knee-to-wall-rock', because: 'kit', about: 'long-band' },
      'Knee-to-wall rock: kit not at hand: long band.',
    ],
  ],
  'static-before-activity': [
    [
      { drill: 'knee-to-wall-rock', school: 'static-stretch-before' },
      'Knee-to-wall rock is a static stretch; the school avoids it before activity.',
    ],
  ],
  'static-too-long': [
    [
      { drill: 'knee-to-wall-rock', seconds: 45, most: 30 },
      '45 s of static stretch a side before activity (knee-to-wall rock first); at most 30 s in all (school).',
    ],
  ],
  'no-movement-after-hold': [
    [
      { drill: 'knee-to-wall-rock' },
      'No movement after knee-to-wall rock; a short hold needs some (school).',
    ],
  ],
  'cooled-down': [
    [
      { drill: 'knee-to-wall-rock', minutes: 18, most: 15 },
      '18 min after the last warming drill (knee-to-wall rock); beyond 15 min much of it is gone.',
    ],
  ],
  'never-warmed': [[{}, 'Nothing in it raises the temperature.']],
  'beyond-range': [
    [
      { drill: 'knee-to-wall-rock', most: 14 },
      'Knee-to-wall rock goes beyond its usual range (most 14), and no maximum was tested.',
    ],
  ],
  'too-many-sets': [
    [{ drill: 'knee-to-wall-rock', sets: 5, most: 3 }, 'Knee-to-wall rock: 5 sets; at most 3 are meant.'],
  ],
  'drill-repeated': [
    [{ drill: 'knee-to-wall-rock' }, 'Knee-to-wall rock stands in the routine more than once.'],
  ],
  'too-close-to-failure': [
    [
      { drill: 'knee-to-wall-rock', test: 'heel-raise-reps', share: 0.9, allowed: 0.4 },
      'Knee-to-wall rock uses 90 % of the tested maximum (single-leg heel-raise endurance); 40 % is meant here.',
    ],
    [
      { drill: 'knee-to-wall-rock', test: 'heel-raise-reps', share: 1.1, allowed: null },
      'Knee-to-wall rock uses 110 % of the tested maximum (single-leg heel-raise endurance); 100 % is meant here.',
    ],
  ],
  'weak-side-forgotten': [
    [
      { drill: 'knee-to-wall-rock', side: 'left' },
      'Knee-to-wall rock gives the left side less, though it is the shorter one.',
    ],
  ],
  'too-hard': [
    [
      { drill: 'knee-to-wall-rock', by: 'R. Halloran', date: '2027-02-20' },
      'Knee-to-wall rock: seen as too hard by R. Halloran on 20 Feb 2027.',
    ],
    [{ drill: 'knee-to-wall-rock', by: null, date: null }, 'Knee-to-wall rock: seen as too hard.'],
  ],
  'same-level-again': [
    [
      { drill: 'knee-to-wall-rock', next: 'wall-shin-raise', by: 'criteria' },
      'Wall-supported shin raise is open (criteria met), yet knee-to-wall rock is repeated.',
    ],
    [
      { drill: 'knee-to-wall-rock', next: 'wall-shin-raise', by: 'placement' },
      'Wall-supported shin raise is open (placed there), yet knee-to-wall rock is repeated.',
    ],
  ],
  'same-tissue-twice': [
    [
      { drill: 'knee-to-wall-rock', before: 'cat-camel' },
      'Cat-camel and knee-to-wall rock work the same tissue one after the other.',
    ],
  ],
  'phase-order': [
    [
      { drill: 'knee-to-wall-rock', phase: 'Mobilise' },
      'Knee-to-wall rock stands before a drill of the earlier phase "Mobilise".',
    ],
  ],
  'two-of-one-ladder': [
    [
      { drill: 'knee-to-wall-rock', other: 'ankle-circles', ladder: 'calf-strength' },
      'Controlled ankle circles and knee-to-wall rock are levels of one ladder.',
    ],
  ],
  'over-time': [[{ over: 75, minutes: 12 }, '1 min 15 s over the 12 min there are.']],
  'action-missing': [[{ pattern: 'run' }, 'Nothing here rehearses run, which follows.']],
  'words-unchecked': [
    [{ lines: 2 }, '2 lines are in own words: precautions and rules of the day cannot be checked on them.'],
    [{ lines: 1 }, 'One line is in own words: precautions and rules of the day cannot be checked on it.'],
  ],
  'caution-says-no': [
    [{ drill: 'pogo-hop', says: 'no jumping' }, 'The list says “no jumping”; two-leg pogo hops is one.'],
  ],
  'turn-too-long': [
    [
      { drill: 'knee-to-wall-rock', seconds: 45, most: 40 },
      'Knee-to-wall rock: a turn takes 45 s, and the next one starts after 40 s.',
    ],
  ],
  'rounds-would-fit': [
    [
      { drills: 3, rounds: 2, seconds: 45 },
      '3 drills of 2 sets with rests between: in rounds one rests while the other is done, 45 s less.',
    ],
  ],
  'repair-swap': [
    [{ drill: 'knee-to-wall-rock', instead: 'ankle-circles' }, 'Take controlled ankle circles instead'],
  ],
  'repair-remove': [[{ drill: 'knee-to-wall-rock' }, 'Take out knee-to-wall rock']],
  'repair-one-side': [[{ drill: 'knee-to-wall-rock', side: 'left' }, 'Only the left side']],
  'repair-shorten': [[{ seconds: 45 }, 'One hold of 45 s each']],
  'repair-move-before': [[{ drill: 'knee-to-wall-rock', before: 'cat-camel' }, 'Put it before cat-camel']],
  'repair-add': [[{ drill: 'knee-to-wall-rock' }, 'Add knee-to-wall rock']],
  'repair-fewer-sets': [[{ drill: 'knee-to-wall-rock', sets: 2 }, 'Down to 2 sets']],
  'repair-lower': [[{ drill: 'knee-to-wall-rock', amount: 9 }, 'Lower to 9']],
  'repair-weak-side': [[{ drill: 'knee-to-wall-rock', side: 'left' }, 'Do the left side as well']],
  'repair-setup': [[{ variable: 'Step height', to: '20 cm' }, 'Set step height to 20 cm']],
  'repair-easier-level': [
    [{ drill: 'knee-to-wall-rock', easier: 'ankle-circles' }, 'Go back to controlled ankle circles'],
  ],
  'repair-next-level': [
    [{ drill: 'knee-to-wall-rock', next: 'wall-shin-raise' }, 'Go on to wall-supported shin raise'],
  ],
  'repair-reorder': [[{ drill: 'knee-to-wall-rock' }, 'Part them']],
  'repair-order': [[{ seconds: 45 }, 'Put into order']],
  'repair-cut': [
    [{ drills: 3 }, 'Fit in: fewer sets, 3 drills less'],
    [{ drills: 0 }, 'Fit in with fewer sets'],
    [{ drills: 1 }, 'Fit in: fewer sets, 1 drill less'],
  ],
  'repair-pace': [[{ seconds: 45 }, 'A start every 45 s']],
  'repair-rounds': [[{ rounds: 2, seconds: 45 }, 'In 2 rounds, 45 s less']],
  'eased-sore': [
    [
      { drill: 'knee-to-wall-rock', region: 'knee', pain: 4, sets: 2 },
      'Knee hurts 4/10 today: the least dose, 2 sets at most.',
    ],
    [
      { drill: 'knee-to-wall-rock', region: 'knee', pain: 4, sets: 1 },
      'Knee hurts 4/10 today: the least dose, 1 set at most.',
    ],
    [{ drill: 'knee-to-wall-rock', region: 'knee', pain: 4 }, 'Knee hurts 4/10 today: the least dose.'],
  ],
  'eased-tired': [[{ drill: 'knee-to-wall-rock' }, 'Slept badly: a set less of what is hard.']],
  'no-room-today': [[{ drill: 'knee-to-wall-rock' }, 'No room for knee-to-wall rock today.']],
  'calm-start': [[{ drill: 'knee-to-wall-rock' }, 'Tense today: a quiet start.']],
  'gentle-first': [
    [{ region: 'knee', pain: 4 }, 'Knee hurts 4/10 today: a gentle drill of it before anything else.'],
  ],
  'longer-ramp': [
    [{ drill: 'knee-to-wall-rock', slept: true }, 'Slept badly: warming up takes a little longer.'],
    [{ drill: 'knee-to-wall-rock', slept: false }, 'Something is sore: warming up takes a little longer.'],
  ],
  'still-warm': [
    [{ drill: 'knee-to-wall-rock', minutes: 5 }, 'Warm until 5 min ago: warming up takes less.'],
    [{ drill: 'knee-to-wall-rock', minutes: 0 }, 'Warm already: warming up takes less.'],
  ],
  'short-today': [[{ minutes: 7 }, 'Only 7 min today.']],
  'item-changed': [
    [
      { before: item('knee-to-wall-rock', { amount: 10 }), after: item('knee-to-wall-rock', { amount: 12 }) },
      'Knee-to-wall rock: 2 × 10 → 2 × 12',
    ],
  ],
  'item-replaced': [
    [
      { before: item('knee-to-wall-rock', { amount: 10 }), after: item('ankle-circles', { amount: 10 }) },
      'Knee-to-wall rock → Controlled ankle circles, 2 × 10',
    ],
  ],
  'item-added': [
    [{ item: item('ankle-circles', { amount: 10 }) }, 'Added: Controlled ankle circles, 2 × 10'],
  ],
  'item-removed': [
    [{ drill: 'ankle-circles', side: 'left' }, 'Removed: Controlled ankle circles left'],
    [{ drill: 'own-words', side: 'both', words: 'ice if sore' }, 'Removed: ice if sore'],
  ],
  'order-changed': [[{}, 'Order changed']],
  'as-written': [[{ text: 'land softly' }, 'land softly']],
};

describe('a reason', () => {
  const rules = Object.keys(REASON_FIGURES) as Rule[];
  it.each(rules)('%s is said as it is meant', (rule) => {
    const examples = SENTENCES[rule];
    expect(examples.length).toBeGreaterThan(0);
    for (const [figures, sentence] of eachOf(examples))
      expect(reasonText(bundledReference, { rule, ...figures } as never)).toBe(sentence);
  });
});
