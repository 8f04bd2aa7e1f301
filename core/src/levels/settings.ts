/** Start rule for a ladder without tests, diary or placement (rulings, "Level placement", editable). */
export const START_RULE = {
  demandIndex: 3,
  trainedDemandIndex: 5,
  trainingYears: 2,
  injuryMonths: 6,
} as const;

/**
 * What is done every week opens levels without a test (judgement, low confidence, editable): the highest demand, and how
 * hard an impact may be. `tag` is how near a ladder has to come to the action.
 */
export const EXPOSURE = {
  tag: 0.5,
  weekly: { perWeek: 1, demandIndex: 6, impact: ['low'], impactActions: ['run', 'land', 'cut'] },
  hard: { perWeek: 2, demandIndex: 9, impact: ['low', 'moderate', 'high'] },
  youthLess: 2,
} as const;

/** A test guards a level with P(capacity ≥ gate) at least this, in building and in progression (rulings, editable). */
export const GUARD_PROBABILITY = 0.8;
