/** Editable defaults of what a check-in changes; all of them judgement, low confidence. */
export const CHECK_IN = {
  /** Most sets of a drill that works a region in amber, where the rule of the day says none. */
  amberSets: 2,
  /** Fatigue of a drill from which a badly slept athlete does a set less of it. */
  tiringFrom: 4,
  /** Minutes after moving for which an athlete counts as warm. */
  stillWarmMinutes: 30,
  /** Share of the warming that is done while still warm, by the school; and the least of a warming drill, in seconds. */
  warmShare: { half: 0.5, quarter: 0.25, whole: 1 } as Readonly<Record<string, number>>,
  leastWarming: 30,
  /** Seconds of warming more for the sore, and for those who slept badly. */
  moreWarming: 45,
  /** Quiet starts, the first that is allowed is taken; and how long it lasts, in seconds. */
  calming: [
    'seated-breathing-reset',
    'supine-breathing-reset',
    'arms-and-legs-breathing',
  ] as readonly string[],
  calmSeconds: { tense: 60, very: 90 },
} as const;
