import type { Override } from '@yonder/core/contracts';
import { reasonText } from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';
import classes from './Routine.module.css';

/** Rules that a version was issued against, each with who said why. */
export function OverrideNotes({ overrides }: { overrides: readonly Override[] }) {
  const reference = useReference();
  if (overrides.length === 0) return null;
  return (
    <ul className={classes.overrides} aria-label="Issued against a rule">
      {overrides.map(({ item, rule, why, by }) => (
        <li key={`${item}/${rule.rule}`}>
          {reasonText(reference, rule)} <b>All the same:</b> {why} ({by})
        </li>
      ))}
    </ul>
  );
}
