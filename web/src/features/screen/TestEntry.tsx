import { Title } from '@mantine/core';
import type { ResultRow, ScreeningRow } from '@yonder/core/contracts';
import type { Side } from '@yonder/core/domain';
import { limitExceeded, aggregateTrials, resultValue, symmetryIndex } from '@yonder/core/measure';
import type { Test } from '@yonder/core/reference';
import { duration, figure, number, unitWord } from '@yonder/core/words';
import { useDebouncedCallback } from '@mantine/hooks';
import { useRef, useState } from 'react';
import { Capture } from './Capture.tsx';
import { Clocks } from './Clocks.tsx';
import { EMPTY_ENTRY, entryOf, resultOf, trialFields, trialValues } from './entry.ts';
import type { Measured } from './convert.ts';
import type { SideEntry } from './entry.ts';
import classes from './Screen.module.css';
import { ReadIn } from './ReadIn.tsx';
import { useReadIn } from './useReadIn.ts';
import { SideRow } from './SideRow.tsx';
import { FaultMarks } from './FaultMarks.tsx';
import { entryFault, typedAt } from './typedResults.ts';

interface Props {
  /** The test typed. */
  test: Test;
  /** Sides that may be tested today; a protocol can close one. */
  sides: readonly Side[];
  /** The visit of the day; null until the first value opens it. */
  visit: ScreeningRow | null;
  /** Earlier visits, newest first. */
  earlier: readonly ScreeningRow[];
  /** Whose visit, and its day. */
  athleteId: string;
  date: string;
  /** Something was typed: it is kept on the device at once. */
  onType: (test: Test, side: Side, entry: SideEntry, row: ResultRow | undefined) => void;
  /** A side is to be stored. */
  onSave: (test: Test, side: Side, entry: SideEntry, row: ResultRow | undefined) => void;
  /** Enter behind the last field. */
  onNext: () => void;
  /** The key for how it is done was pressed. */
  onHelp: () => void;
}

function lastOf(
  test: Test,
  side: Side,
  earlier: readonly ScreeningRow[],
): { date: string; value: number } | null {
  for (const visit of earlier) {
    const row = visit.results.find((r) => r.test === test.id && r.side === side);
    const value = row ? resultValue(test, row) : null;
    if (value !== null) return { date: visit.date, value };
  }
  return null;
}

/** Left against right as soon as both are there: the difference, its limit and whether it is beyond the error. */
function SideComparison({ test, entries }: { test: Test; entries: Record<string, SideEntry> }) {
  const valueOf = (side: Side) => {
    const values = entries[side] ? trialValues(test, entries[side]) : [];
    return values.length > 0 ? aggregateTrials(test, values) : null;
  };
  const left = valueOf('left');
  const right = valueOf('right');
  const limit = test.flag.asymmetry;
  if (left === null || right === null) return null;
  const difference = Math.abs(left - right);
  const exceeded = limit !== null && limitExceeded(left, right, limit);
  const beyondError = difference >= test.mdc95.value;
  const verdict = !limit
    ? 'no limit is set for this test'
    : !exceeded
      ? 'within the limit'
      : beyondError
        ? 'beyond the limit and the error: it counts'
        : 'beyond the limit, inside the error: possible, repeat';
  const index = limit?.kind === 'lsi-percent' ? ` (${number(symmetryIndex(left, right), 0)} %)` : '';
  return (
    <p className={classes.comparison} data-counts={(exceeded && beyondError) || undefined}>
      Left against right: {figure(difference, test.unit)}
      {index}, {verdict}. Error (MDC95) {figure(test.mdc95.value, test.unit)}.
    </p>
  );
}

/** Pause in typing after which an entry is stored, in ms. */
const COMMIT_MS = 700;

/** The first trial still open, the left side first; behind the last one the last is meant. */
function nextOpen(test: Test, sides: readonly Side[], entryOfSide: (side: Side) => SideEntry) {
  for (const side of sides) {
    const entry = entryOfSide(side);
    const trial = Array.from({ length: trialFields(test, entry) }, (_, i) => entry.trials[i] ?? '').indexOf(
      '',
    );
    if (trial >= 0) return { side, trial };
  }
  const side = sides.at(-1) ?? 'central';
  return { side, trial: Math.max(0, entryOfSide(side).trials.length - 1) };
}

function entriesOfSides(
  sides: readonly Side[],
  entryOfSide: (side: Side) => SideEntry,
): Record<string, SideEntry> {
  return Object.fromEntries(sides.map((side) => [side, entryOfSide(side)]));
}

/** Where the focus goes from a field: to the next one, or to the other side. */
function useMoves(onNext: () => void) {
  const section = useRef<HTMLElement>(null);
  const table = useRef<HTMLTableElement>(null);
  const fields = () => [...(section.current?.querySelectorAll<HTMLElement>('[data-field]') ?? [])];
  const enter = (field: HTMLElement) => {
    if (field.getAttribute('aria-invalid') === 'true') return;
    // What was typed is drawn by now, a further trial with it: the focus moves before the next key arrives.
    const all = fields();
    const next = all[all.indexOf(field) + 1];
    if (next) {
      next.focus();
      if (next instanceof HTMLInputElement) next.select();
    } else {
      field.blur();
      onNext();
    }
  };
  const switchSide = (field: HTMLInputElement) => {
    const own = field.closest('tbody')?.dataset.side;
    const other = table.current?.querySelector<HTMLInputElement>(`tbody:not([data-side="${own}"]) input`);
    other?.focus();
    other?.select();
  };
  return { section, table, enter, switchSide };
}

/** Unit, trials and how long a test takes. */
function Facts({ test }: Pick<Props, 'test'>) {
  return (
    <p className={classes.facts}>
      in {unitWord(test.unit)}, {test.trials.count} {test.trials.count === 1 ? 'trial' : 'trials'} (
      {test.trials.aggregate} counts), about {duration(test.timeSeconds)} for both sides
    </p>
  );
}

interface InstrumentsProps {
  /** The test read. */
  test: Test;
  /** The side the next value goes to. */
  side: Side;
  /** How its fields are read. */
  measured: Measured | null;
  /** Where the value goes: "left, trial 2". */
  target: string;
  /** A value as its field is read, and touch-downs counted on the way. */
  onTake: (value: number, touchDowns?: number | null) => void;
}

/** Clocks and devices that fill the next trial. */
function Instruments({ test, side, measured, target, onTake }: InstrumentsProps) {
  return (
    <>
      <Clocks test={test} target={target} onTake={onTake} />
      <Capture
        key={test.id}
        test={test}
        side={side}
        measured={measured}
        target={target}
        onTake={(v) => onTake(v)}
      />
    </>
  );
}

/** The heads of the columns. */
function Heads({ columns }: { columns: number }) {
  return (
    <thead>
      <tr>
        <td />
        {Array.from({ length: columns }, (_, i) => (
          <th key={i} scope="col">
            Trial {i + 1}
          </th>
        ))}
        <th scope="col">Pain 0–10</th>
      </tr>
    </thead>
  );
}

/** The entry with a value in a trial, and touch-downs counted on. */
function withTaken(entry: SideEntry, trial: number, value: number, touchDowns: number | null): SideEntry {
  const trials = Array.from({ length: Math.max(entry.trials.length, trial + 1) }, (_, i) =>
    i === trial ? String(value) : (entry.trials[i] ?? ''),
  );
  const touches = touchDowns === null ? entry.touchDowns : (entry.touchDowns ?? 0) + touchDowns;
  return { ...entry, trials, touchDowns: touches };
}

/** Entry of one test: type, Enter, next field; S switches the side; H shows how it is done. */
export function TestEntry(props: Props) {
  const { test, sides, visit, earlier, athleteId, date, onType, onSave } = props;
  const rowOf = (side: Side) => visit?.results.find((r) => r.test === test.id && r.side === side);
  const { fresh, wayOf, remember, keepLever } = useReadIn(test, earlier);
  // What was typed and is not stored yet comes before what is.
  const [entries, setEntries] = useState(() =>
    entriesOfSides(
      sides,
      (side) =>
        typedAt({ athleteId, date, test: test.id, side })?.entry ??
        (rowOf(side) ? entryOf(rowOf(side)) : { ...EMPTY_ENTRY, measured: fresh(side) }),
    ),
  );
  const [aim, setAim] = useState<{ side: Side; trial: number } | null>(null);

  const commit = (side: Side, entry: SideEntry) => {
    if (!entryFault(test, side, entry)) onSave(test, side, entry, rowOf(side));
  };
  /** What was typed is stored a moment later even if the field is never left: a closed lid loses nothing. */
  const commitSoon = useDebouncedCallback((side: Side, entry: SideEntry) => {
    if (resultOf(test, entry)) commit(side, entry);
  }, COMMIT_MS);
  /** Takes over a whole entry at once and stores it: marks, clocks and devices do not wait for a field to be left. */
  const put = (side: Side, entry: SideEntry) => {
    setEntries((current) => ({ ...current, [side]: entry }));
    commit(side, entry);
  };
  /** The same texts, read in another way. */
  const retype = (side: Side, measured: Measured | null) => {
    const entry = { ...entryOfSide(side), measured };
    setEntries((current) => ({ ...current, [side]: entry }));
    if (entry.trials.length === 0) return;
    onType(test, side, entry, rowOf(side));
    commit(side, entry);
  };
  const { section, table, enter, switchSide } = useMoves(props.onNext);
  const entryOfSide = (side: Side) => entries[side] ?? EMPTY_ENTRY;
  const columns = Math.max(...sides.map((side) => trialFields(test, entryOfSide(side))));
  const target = aim ?? nextOpen(test, sides, entryOfSide);
  const targetText = `${target.side === 'central' ? '' : `${target.side}, `}trial ${target.trial + 1}`;
  const take = (value: number, touchDowns: number | null = null) => {
    put(target.side, withTaken(entryOfSide(target.side), target.trial, value, touchDowns));
    setAim(null);
  };
  return (
    <section className={`card ${classes.entry}`} aria-labelledby="test-title" ref={section}>
      <Title order={2} size={19} id="test-title">
        {test.name}
      </Title>
      <Facts test={test} />
      {test.faults ? (
        <FaultMarks
          test={test}
          sides={sides}
          entries={entriesOfSides(sides, entryOfSide)}
          onEntry={put}
          onEnter={enter}
        />
      ) : null}
      <ReadIn
        test={test}
        sides={sides}
        measured={entryOfSide(sides[0] ?? 'central').measured}
        onUnit={(asMeasured) => {
          remember(asMeasured);
          for (const side of sides) retype(side, asMeasured ? wayOf(side) : null);
        }}
        onLever={(lever) => {
          keepLever(lever);
          for (const side of sides) {
            const { measured } = entryOfSide(side);
            if (measured) retype(side, { ...measured, lever });
          }
        }}
        onEnter={enter}
      />
      <div className={classes.scroll}>
        <table ref={table} className={classes.table}>
          <Heads columns={columns} />
          {sides.map((side) => (
            <SideRow
              key={side}
              test={test}
              side={side}
              entry={entryOfSide(side)}
              columns={columns}
              last={lastOf(test, side, earlier)}
              onChange={(entry) => {
                setEntries((current) => ({ ...current, [side]: entry }));
                onType(test, side, entry, rowOf(side));
                commitSoon(side, entry);
              }}
              onCommit={(entry) => commit(side, entry)}
              onEnter={enter}
              onSwitchSide={switchSide}
              onHelp={props.onHelp}
              onFocusTrial={(trial) => setAim({ side, trial })}
            />
          ))}
        </table>
      </div>
      {test.faults ? null : (
        <Instruments
          test={test}
          side={target.side}
          measured={entryOfSide(target.side).measured}
          target={targetText}
          onTake={take}
        />
      )}
      <SideComparison test={test} entries={entries} />
    </section>
  );
}
