import { Button, Text } from '@mantine/core';
import type { Check } from '@yonder/core/checks';
import type { RoutineItem } from '@yonder/core/domain';
import { reasonText } from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';
import classes from './Routine.module.css';

interface Props {
  /** What is wrong or worth a look, each with its repair. */
  checks: readonly Check[];
  /** Things worth knowing that are no check of the items: what is not served, what the build warns of. */
  notes: readonly string[];
  /** A repair was pressed: the items after it, and what it did. */
  onRepair: (items: RoutineItem[], what: string) => void;
  /** The drill a check is about was pressed. */
  onShow: (index: number) => void;
}

const MARK = { stop: '■', warn: '▲', note: '○' } as const;
const WORD = { stop: 'must not be issued', warn: 'against a rule', note: 'worth knowing' } as const;

/** What is wrong with the routine as it stands, worst first, each mended by one press where it can be. */
export function Checks({ checks, notes, onRepair, onShow }: Props) {
  const reference = useReference();
  if (checks.length + notes.length === 0) {
    return (
      <Text size="sm" c="var(--muted)" className={classes.clean} role="status">
        All checks pass.
      </Text>
    );
  }
  return (
    <ul id="checks" className={classes.checks} aria-label="Checks">
      {checks.map((check) => {
        const words = reasonText(reference, check.reason);
        const { repair, at } = check;
        const first = at[0];
        return (
          <li key={words} data-level={check.level}>
            <span className={classes.mark} title={WORD[check.level]}>
              {MARK[check.level]}
            </span>
            {first === undefined ? (
              <span>{words}</span>
            ) : (
              <button type="button" className={classes.checkText} onClick={() => onShow(at.at(-1) ?? first)}>
                {words}
              </button>
            )}
            {repair ? (
              <Button
                size="compact-xs"
                variant="light"
                onClick={() => onRepair([...repair.items], reasonText(reference, repair.does))}
              >
                {reasonText(reference, repair.does)}
              </Button>
            ) : null}
          </li>
        );
      })}
      {notes.map((line) => (
        <li key={line} data-level="note">
          <span className={classes.mark}>○</span>
          <span>{line}</span>
        </li>
      ))}
    </ul>
  );
}
