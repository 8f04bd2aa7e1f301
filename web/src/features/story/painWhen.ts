/** When a pain is felt, in words. */
export const PAIN_WHEN = [
  { value: 'rest', label: 'at rest' },
  { value: 'movement', label: 'in movement' },
  { value: 'end-range', label: 'at end range' },
  { value: 'day-after', label: 'the day after' },
];

/** The words of one of them. */
export const painWhenText = (when: string) => PAIN_WHEN.find((w) => w.value === when)?.label ?? when;
