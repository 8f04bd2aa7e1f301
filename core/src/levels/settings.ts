/** Start rule for a ladder without tests, diary or placement (rulings, "Level placement", editable). */
export const START_RULE = {
  demandIndex: 3,
  trainedDemandIndex: 5,
  trainingYears: 2,
  injuryMonths: 6,
} as const;
