/** Editable defaults of the judgement (rulings.md, marked E). */
export const FINDING_SETTINGS = {
  /** Severity of a side that only symmetry speaks against. */
  symmetrySeverityCap: 0.3,
  /** Severity under sixteen, where only the other side or the own trend speaks. */
  youthSeverityCap: 0.5,
  taskRelevance: 1,
  otherRelevance: 0.7,
  injuryFactor: 1.25,
  injuryMonths: 24,
  short: 0.95,
  likelyShort: 0.8,
  withinError: 0.2,
} as const;

/** Upper end of "fine" pain and the stop limit, 0–10, per option of the school `pain-limit`. */
export const PAIN_LIMITS: Readonly<Record<string, { fine: number; stop: number }>> = {
  '2-5': { fine: 2, stop: 5 },
  '0-3': { fine: 0, stop: 3 },
  none: { fine: 0, stop: 0 },
};

/** The highest pain limits, 0–10, that a practice may set for itself (judgement, low confidence). */
export const MOST_PAIN = { fine: 4, stop: 6 } as const;

/** Growing athletes: under this age the pain limit is 0–3 unless the practice is stricter (rulings). */
export const GROWING_AGE = 18;
/** Pain limits under 18, 0–10, whatever the school says (rulings, pain and progression). */
export const GROWING_LIMITS = { fine: 0, stop: 3 } as const;
