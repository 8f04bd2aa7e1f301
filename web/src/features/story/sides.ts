/** The sides as a list to choose from, with their fixed marks. */
export const SIDES = [
  { value: 'left', label: '◁ left' },
  { value: 'right', label: '▷ right' },
  { value: 'central', label: '◇ central' },
];
