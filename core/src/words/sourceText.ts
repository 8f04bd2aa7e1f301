import { dayText } from '../domain/index.ts';
import type { Evidence } from '../findings/index.ts';
import type { Reference } from '../reference/index.ts';
import { nameOf } from './figures.ts';
import { SIDE_LABEL } from './labels.ts';

/** Who asks for a need: the task by name, the floor, the other side, the last visit, or somebody by hand. */
export function sourceText(reference: Reference, { kind, id }: Evidence['needSource']): string {
  switch (kind) {
    case 'task':
      return nameOf(reference, id);
    case 'floor':
      return 'reference floor';
    case 'override':
      return 'set for this athlete';
    case 'symmetry':
      return `the ${SIDE_LABEL[id as 'left'] ?? 'other'} side`;
    case 'trend':
      return `the visit of ${dayText(id)}`;
    case 'ratio':
      return `ratio ${id.replaceAll('-', ' ')}`;
  }
}
