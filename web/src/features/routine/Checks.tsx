import { Button, Text } from '@mantine/core';
import type { Check } from '@yonder/core/checks';
import type { Draft } from '@yonder/core/contracts';
import type { RoutineItem } from '@yonder/core/domain';
import { reasonText } from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';
import { useAppDispatch, useAppSelector } from '../../app/store.ts';
import { shortDay, today } from '../../app/today.ts';
import { leftChanged } from './draftSlice.ts';
import { LeaveIt } from './LeaveIt.tsx';
import classes from './Routine.module.css';

interface Props {
  /** The routine that is checked; null where none is edited. */
  draft: Draft | null;
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

/** The item that a check is about, by id; null when it is about the routine. */
function itemOf(draft: Draft, { at }: Check): string | null {
  return draft.items[at.at(-1) ?? -1]?.id ?? null;
}

/** What was said when a note was left as it is; undefined while it is open. */
export function leftSo(draft: Draft, check: Check): Draft['left'][number] | undefined {
  const item = itemOf(draft, check);
  return draft.left.find((left) => left.rule === check.reason.rule && left.item === item);
}

/** One note with its repair, or the words with which it was left. */
function Note({ check, draft, onRepair, onShow }: Omit<Props, 'checks' | 'notes'> & { check: Check }) {
  const reference = useReference();
  const dispatch = useAppDispatch();
  const by = useAppSelector((state) => state.session.me?.clinician.name) ?? '';
  const { repair, at, reason, level } = check;
  const words = reasonText(reference, reason);
  const first = at[0];
  const left = draft ? leftSo(draft, check) : undefined;
  const item = draft ? itemOf(draft, check) : null;
  return (
    <li data-level={level} data-left={left !== undefined || undefined}>
      <span className={classes.mark} title={WORD[level]}>
        {left ? '✓' : MARK[level]}
      </span>
      {first === undefined ? (
        <span>{words}</span>
      ) : (
        <button type="button" className={classes.checkText} onClick={() => onShow(at.at(-1) ?? first)}>
          {words}
        </button>
      )}
      {left && draft ? (
        <>
          <span className="muted">
            left so by {left.by}, {shortDay(left.on)}: {left.why}
          </span>
          <Button
            size="compact-xs"
            variant="subtle"
            aria-label={`Take up again: ${words}`}
            onClick={() => dispatch(leftChanged(draft.left.filter((one) => one !== left)))}
          >
            Take up again
          </Button>
        </>
      ) : (
        <>
          {repair ? (
            <Button
              size="compact-xs"
              variant="light"
              onClick={() => onRepair([...repair.items], reasonText(reference, repair.does))}
            >
              {reasonText(reference, repair.does)}
            </Button>
          ) : null}
          {draft && level !== 'stop' ? (
            <LeaveIt
              note={words}
              keptAs={`${item ?? ''}/${reason.rule}`}
              onLeave={(why) =>
                dispatch(leftChanged([...draft.left, { item, rule: reason.rule, why, by, on: today() }]))
              }
            />
          ) : null}
        </>
      )}
    </li>
  );
}

/** What is wrong with the routine as it stands, worst first, each mended by one press where it can be, or left as it is. */
export function Checks({ draft, checks, notes, onRepair, onShow }: Props) {
  const reference = useReference();
  if (checks.length + notes.length === 0) {
    return (
      <Text size="sm" c="var(--muted)" className={classes.clean} role="status">
        All checks pass.
      </Text>
    );
  }
  const open = checks.filter((check) => !draft || !leftSo(draft, check));
  const left = checks.filter((check) => !open.includes(check));
  return (
    <ul id="checks" className={classes.checks} aria-label="Checks">
      {[...open, ...left].map((check) => (
        <Note
          key={`${check.reason.rule}/${check.at.join()}/${reasonText(reference, check.reason)}`}
          check={check}
          draft={draft}
          onRepair={onRepair}
          onShow={onShow}
        />
      ))}
      {notes.map((line) => (
        <li key={line} data-level="note">
          <span className={classes.mark}>○</span>
          <span>{line}</span>
        </li>
      ))}
    </ul>
  );
}
