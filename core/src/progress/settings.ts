/** Editable defaults of progression (rulings, "Pain and progression"). */
export const PROGRESS = {
  /** Worse next day means more than this above the morning before. */
  nextDayTolerance: 1,
  /** A graded drill for a painful position goes up a level after so many calm mornings running. */
  calmMornings: 2,
  /** A trial of long holds for a tendon: its days, the fall of pain that keeps them, and the sessions to judge it by. */
  trialDays: 14,
  trialFall: 2,
  trialSessions: 3,
  freshDays: 14,
  /** After this many days off a drill it is eased one step. */
  longBreakDays: 28,
  /** No retry of a level within this many days after easing. */
  retryDays: 14,
  /** A region that got more than this share of extra work this week gets nothing else. */
  weeklyIncrease: 0.2,
  guardProbability: 0.8,
  /** A guard test below this probability makes a proposal weak. */
  firmProbability: 0.9,
  /** What should change and was not looked at for so many days waits again. */
  lookAgainDays: 14,
  /** Quality 0–3 at or below which a set is not clean. */
  poorQuality: 1,
} as const;

/** One step of an amount, in the unit of its measure. */
export const AMOUNT_STEP = { reps: 2, 'hold-seconds': 5, seconds: 10, metres: 5, contacts: 2 } as const;
