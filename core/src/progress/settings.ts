/** Editable defaults of progression (rulings, "Pain and progression"). */
export const PROGRESS = {
  /** A graded drill for a painful position goes up a level after so many calm mornings running. */
  calmMornings: 2,
  /** A trial of long holds for a tendon: its days, the fall of pain that keeps them, and the sessions to judge it by. */
  trialDays: 14,
  trialFall: 2,
  trialSessions: 3,
  freshDays: 14,
  /** Days off a drill after which it comes back one step easier, two steps, or from the first level again. */
  breakDays: { one: 28, two: 60, anew: 120 },
  /** No retry of a level within this many days after easing. */
  retryDays: 14,
  /** Nothing else of a region is made harder for so many days after something of it was. */
  hardenedDays: 7,
  /** A guard test below this probability makes a proposal weak. */
  firmProbability: 0.9,
  /** What should change and was not looked at for so many days waits again. */
  lookAgainDays: 14,
} as const;

/** One step of an amount, in the unit of its measure. */
export const AMOUNT_STEP = { reps: 2, 'hold-seconds': 5, seconds: 10, metres: 5, contacts: 2 } as const;
