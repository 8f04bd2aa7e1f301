/** Editable defaults of what a diary says (rulings, "Pain and progression"). */
export const DIARY = {
  /** Worse next day means more than this above the morning before. */
  nextDayTolerance: 1,
  /** Quality 0–3 at or below which a set is not clean. */
  poorQuality: 1,
  /** Above the limit so often among so many of the last sessions counts as twice running. */
  pattern: { times: 3, among: 5 },
} as const;
