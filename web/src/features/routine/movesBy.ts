import type { KeyboardEvent } from 'react';

/** Moving a line by Alt and the arrow keys. */
export function movesBy(event: KeyboardEvent): -1 | 0 | 1 {
  if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return 0;
  event.preventDefault();
  event.stopPropagation();
  return event.key === 'ArrowUp' ? -1 : 1;
}
