import type { Side } from '@yonder/core/domain';
import { compareRaters } from '@yonder/core/measure';
import type { Test } from '@yonder/core/reference';
import { percent, SIDE_LABEL } from '@yonder/core/words';
import { useState } from 'react';
import type { KeyboardEvent } from 'react';
import { useAppSelector } from '../../app/store.ts';
import { SideMark } from '../../components/SideMark.tsx';
import { entryGrade, gradedByFaults, resultOf, withMark } from './entry.ts';
import type { Mark, SideEntry } from './entry.ts';
import classes from './FaultMarks.module.css';

type Level = Mark['mark'] | null;
const LEVELS: readonly Level[] = [null, 'slight', 'clear'];
const WORD = { none: 'none', slight: 'slight', clear: 'clear' } as const;

interface MarkProps {
  /** The fault. */
  label: string;
  /** How much of it was seen. */
  level: Level;
  /** Nobody has looked yet. */
  open: boolean;
  /** Another level. */
  onMark: (level: Level) => void;
  /** The key for the other side was pressed. */
  onSwitchSide: (field: HTMLElement) => void;
  /** Done with this one: on to the next field. */
  onEnter: (field: HTMLElement) => void;
}

/** One fault of one side: Space goes round none, slight, clear; 0, 1 and 2 set it at once. */
function MarkButton({ label, level, open, onMark, onSwitchSide, onEnter }: MarkProps) {
  const keys = (event: KeyboardEvent<HTMLButtonElement>) => {
    const digit = ['0', '1', '2'].indexOf(event.key);
    if (digit >= 0) onMark(LEVELS[digit] ?? null);
    else if (event.key === 's' || event.key === 'S') onSwitchSide(event.currentTarget);
    else if (event.key === 'Enter') {
      event.preventDefault(); // Space goes round; Enter moves on, as in every field
      onEnter(event.currentTarget);
    }
  };
  const next = LEVELS[(LEVELS.indexOf(level) + 1) % LEVELS.length] ?? null;
  return (
    <button
      type="button"
      className={classes.mark}
      data-field
      data-level={open ? 'open' : (level ?? 'none')}
      aria-label={`${label}: ${open ? 'not looked at' : WORD[level ?? 'none']}`}
      onClick={() => onMark(open ? 'slight' : next)}
      onKeyDown={keys}
    >
      {open ? '–' : WORD[level ?? 'none']}
    </button>
  );
}

interface Props {
  /** The test whose faults are marked. */
  test: Test;
  /** Its sides. */
  sides: readonly Side[];
  /** What is marked so far, by side. */
  entries: Readonly<Record<string, SideEntry>>;
  /** Another mark. */
  onEntry: (side: Side, entry: SideEntry) => void;
  /** Enter on a mark: go to the next field. */
  onEnter: (field: HTMLElement) => void;
}

type Column = { side: Side; rater: 'first' | 'second' };

function marksOf(entry: SideEntry, rater: Column['rater']): readonly Mark[] | null {
  return rater === 'first' ? entry.faults : (entry.second?.faults ?? null);
}

/** What two raters saw, side by side. */
function Comparison({ test, side, entry }: { test: Test; side: Side; entry: SideEntry }) {
  const result = resultOf(test, entry);
  const compared = result ? compareRaters(test, result as Parameters<typeof compareRaters>[1]) : null;
  if (!compared) return null;
  const { first, second } = compared.grades;
  const names = compared.differing.map((d) => test.faults?.find((f) => f.id === d.id)?.name.toLowerCase());
  return (
    <p className={classes.comparison}>
      {side === 'central' ? 'Raters' : `Raters, ${SIDE_LABEL[side]}`}: grade {first ?? '–'} and{' '}
      {second ?? '–'}, {percent(compared.agreement ?? 0)} of the faults marked alike
      {names.length > 0 ? `; they differ on ${names.join(', ')}` : ''}.
    </p>
  );
}

/**
 * Observable faults per phase, marked none, slight or clear on each side; the grade follows by the stated rule. A second
 * rater can mark beside the first; the two are compared, never averaged.
 */
export function FaultMarks({ test, sides, entries, onEntry, onEnter }: Props) {
  const me = useAppSelector((state) => state.session.me);
  const entryOfSide = (side: Side) => entries[side] as SideEntry;
  const [two, setTwo] = useState(sides.some((side) => entryOfSide(side).second !== null));
  const [name, setName] = useState(
    sides.map((side) => entryOfSide(side).second?.by).find((by) => by !== undefined) ?? '',
  );
  const columns: Column[] = sides.flatMap((side): Column[] => [
    { side, rater: 'first' },
    ...(two ? [{ side, rater: 'second' } as const] : []),
  ]);
  const mark = ({ side, rater }: Column, fault: string, level: Level) => {
    const entry = entryOfSide(side);
    if (rater === 'first') return onEntry(side, withMark(entry, fault, level));
    const rest = (entry.second?.faults ?? []).filter((m) => m.id !== fault);
    const faults = level === null ? rest : [...rest, { id: fault, mark: level }];
    onEntry(side, { ...entry, second: { by: name.trim() || 'second rater', faults } });
  };
  const switchSide = (button: HTMLElement) => {
    const cells = [...(button.closest('tr')?.querySelectorAll('button') ?? [])];
    cells[(cells.indexOf(button as HTMLButtonElement) + 1) % cells.length]?.focus();
  };
  const sideText = (side: Side) => (side === 'central' ? '' : `, ${SIDE_LABEL[side]}`);
  return (
    <div>
      <table className={classes.table} aria-label="Observed faults">
        <thead>
          <tr>
            <th scope="col">Seen in any counted attempt</th>
            {columns.map(({ side, rater }) => (
              <th key={`${side}${rater}`} scope="col">
                <SideMark side={side} state="short" size={11} />{' '}
                {rater === 'first' ? (me?.clinician.name.split(' ')[0] ?? 'first') : name.trim() || 'second'}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {(test.faults ?? []).map((fault) => (
            <tr key={fault.id}>
              <th scope="row">
                {fault.name} <span className={classes.phase}>{fault.phase}</span>
              </th>
              {columns.map((column) => {
                const marks = marksOf(entryOfSide(column.side), column.rater);
                return (
                  <td key={`${column.side}${column.rater}`}>
                    <MarkButton
                      label={`${fault.name}${sideText(column.side)}${column.rater === 'second' ? ', second rater' : ''}`}
                      level={marks?.find((m) => m.id === fault.id)?.mark ?? null}
                      open={marks === null}
                      onMark={(level) => mark(column, fault.id, level)}
                      onSwitchSide={switchSide}
                      onEnter={onEnter}
                    />
                  </td>
                );
              })}
            </tr>
          ))}
          <tr>
            <th scope="row">{gradedByFaults(test) ? 'Grade by the rule' : 'No fault seen'}</th>
            {columns.map(({ side, rater }) => {
              const entry = entryOfSide(side);
              if (rater === 'second') return <td key={`${side}${rater}`} />;
              const grade = entryGrade(test, entry);
              return (
                <td key={`${side}${rater}`}>
                  {grade !== null ? <b className={classes.grade}>{grade}</b> : null}
                  {entry.faults === null && !entry.unable ? (
                    <button
                      type="button"
                      className={classes.clean}
                      aria-label={`No fault${sideText(side)}`}
                      onClick={() => onEntry(side, { ...entry, faults: [] })}
                    >
                      no fault
                    </button>
                  ) : null}
                  {gradedByFaults(test) ? (
                    <label className={classes.unable}>
                      <input
                        type="checkbox"
                        checked={entry.unable}
                        aria-label={`Unable or stopped for pain${sideText(side)}`}
                        onChange={(e) => onEntry(side, { ...entry, unable: e.currentTarget.checked })}
                      />
                      unable
                    </label>
                  ) : null}
                </td>
              );
            })}
          </tr>
        </tbody>
      </table>
      <p className={classes.rule}>{test.gradingRule?.text}</p>
      {two ? (
        <label className={classes.rater}>
          Second rater{' '}
          <input
            value={name}
            maxLength={60}
            onChange={(e) => setName(e.currentTarget.value)}
            placeholder="name"
          />
        </label>
      ) : (
        <button type="button" className={classes.clean} onClick={() => setTwo(true)}>
          Compare a second rater
        </button>
      )}
      {sides.map((side) => (
        <Comparison key={side} test={test} side={side} entry={entryOfSide(side)} />
      ))}
    </div>
  );
}
