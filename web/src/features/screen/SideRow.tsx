import { PAIN_ASPECTS, PAIN_FEELS } from '@yonder/core/domain';
import type { Side } from '@yonder/core/domain';
import { aggregateTrials, resultSd, trialSpread } from '@yonder/core/measure';
import { realChange } from '@yonder/core/estimate';
import type { Test } from '@yonder/core/reference';
import { figure, number, SIDE_LABEL, signedFigure, unitWord } from '@yonder/core/words';
import type { KeyboardEvent } from 'react';
import { readNumber } from '../../app/readNumber.ts';
import { shortDay } from '../../app/today.ts';
import { SideMark } from '../../components/SideMark.tsx';
import { entryGrade, painFault, struckOut, trialFault, trialFields, trialValues } from './entry.ts';
import type { SideEntry } from './entry.ts';
import { StrikeOut } from './StrikeOut.tsx';
import classes from './Screen.module.css';

interface Props {
  /** The test typed. */
  test: Test;
  /** Its side. */
  side: Side;
  /** What is typed so far. */
  entry: SideEntry;
  /** Trial columns of the table; a side that needs fewer leaves the rest empty. */
  columns: number;
  /** The visit before this one, if there was one. */
  last: { date: string; value: number } | null;
  /** Something was typed. */
  onChange: (entry: SideEntry) => void;
  /** Called when a field is left or confirmed. */
  onCommit: (entry: SideEntry) => void;
  /** Enter in a field: go to the next one. */
  onEnter: (field: HTMLInputElement) => void;
  /** The side key was pressed. */
  onSwitchSide: (field: HTMLInputElement) => void;
  /** The key for how it is done was pressed. */
  onHelp: () => void;
  /** A trial field got the focus: a clock's time goes there. */
  onFocusTrial?: (index: number) => void;
}

interface PainPlaceProps extends Pick<Props, 'entry' | 'onChange' | 'onCommit'> {
  /** Whose pain, for those who do not see it. */
  label: string;
}

/** Where it hurts and how that feels; offered once there is pain, one Tab away: Enter goes on to the next number. */
function PainPlace({ entry, label, onChange, onCommit }: PainPlaceProps) {
  const change = (next: SideEntry) => {
    onChange(next);
    onCommit(next);
  };
  return (
    <span className={classes.place}>
      <select
        aria-label={`Where it hurts${label}`}
        value={entry.aspect}
        onChange={(e) => change({ ...entry, aspect: e.currentTarget.value as SideEntry['aspect'] })}
      >
        <option value="">where?</option>
        {PAIN_ASPECTS.map((aspect) => (
          <option key={aspect} value={aspect}>
            {aspect}
          </option>
        ))}
      </select>
      <select
        aria-label={`How it feels${label}`}
        value={entry.feel}
        onChange={(e) => change({ ...entry, feel: e.currentTarget.value as SideEntry['feel'] })}
      >
        <option value="">feels like?</option>
        {PAIN_FEELS.map((feel) => (
          <option key={feel} value={feel}>
            {feel.replace('-', ' ')}
          </option>
        ))}
      </select>
    </span>
  );
}

/** What trials that lie far apart, one more taken, do to the error of the result. */
function errorText(test: Test, values: readonly number[]): string {
  const sd = resultSd(test, values);
  return sd > test.sem.value
    ? `, error ± ${number(sd, 1)} instead of ${number(test.sem.value, 1)}`
    : ', within the error of the mean';
}

function Outcome({ test, entry, last }: Pick<Props, 'test' | 'entry' | 'last'>) {
  const grade = entryGrade(test, entry);
  if (grade !== null) {
    const before = last ? `${figure(last.value, test.unit)} on ${shortDay(last.date)}` : 'first result';
    return (
      <>
        <b className={classes.aggregate}>{figure(grade, test.unit)}</b>
        <span className="muted">{before}; grades are not averaged</span>
      </>
    );
  }
  const values = trialValues(test, entry);
  if (values.length === 0) {
    const before = last
      ? `last time ${figure(last.value, test.unit)}, ${shortDay(last.date)}`
      : 'no result yet';
    return <span className="muted">{before}</span>;
  }
  const value = aggregateTrials(test, values);
  const spread = trialSpread(test, values);
  const change = last ? realChange(test, last.value, value) : null;
  const word =
    change?.real === 'yes' ? 'real change' : change?.real === 'possibly' ? 'possibly real' : 'within error';
  const spreadText =
    spread.range === null
      ? ''
      : spread.cvPercent === null
        ? `spread ${number(spread.range, 1)} ${unitWord(test.unit)}`
        : `CV ${number(spread.cvPercent, 1)} %`;
  return (
    <>
      <b className={classes.aggregate}>{figure(value, test.unit)}</b> {test.trials.aggregate}
      {spreadText ? (
        <span data-wide={spread.exceeded || undefined} className={classes.spread}>
          {spreadText}
          {spread.askAnother ? ', one more trial' : spread.unstable ? errorText(test, values) : ''}
        </span>
      ) : null}
      {change && last ? (
        <span data-real={change.real}>
          {signedFigure(change.difference, test.unit)} since {shortDay(last.date)}, {word}
        </span>
      ) : (
        <span className="muted">first result</span>
      )}
    </>
  );
}

/** One side of a test: trial fields, pain, and at once what they come to. */
export function SideRow({
  test,
  side,
  entry,
  columns,
  last,
  onChange,
  onCommit,
  onEnter,
  onSwitchSide,
  onHelp,
  onFocusTrial,
}: Props) {
  const fields = trialFields(test, entry);
  const label = side === 'central' ? '' : ` ${SIDE_LABEL[side]}`;
  const keys = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Enter') {
      event.preventDefault();
      onEnter(event.currentTarget);
    } else if (event.key === 's' || event.key === 'S') {
      event.preventDefault();
      onSwitchSide(event.currentTarget);
    } else if (event.key === 'h' || event.key === 'H') {
      event.preventDefault();
      onHelp();
    }
  };
  const hurts = (readNumber(entry.pain) ?? 0) > 0;
  const setTrial = (index: number, text: string): SideEntry => {
    const trials = Array.from({ length: Math.max(entry.trials.length, index + 1) }, (_, i) =>
      i === index ? text : (entry.trials[i] ?? ''),
    );
    while (trials.length > 0 && trials.at(-1) === '') trials.pop();
    return { ...entry, trials };
  };
  return (
    <tbody data-side={side}>
      <tr>
        <th scope="row" className={classes.side}>
          <SideMark side={side} state="short" /> {SIDE_LABEL[side]}
          {entry.measured ? <span className={classes.readUnit}>{entry.measured.unit}</span> : null}
        </th>
        {Array.from({ length: fields }, (_, index) => {
          const text = entry.trials[index] ?? '';
          const fault = trialFault(test, text, entry);
          const id = `${test.id}-${side}-${index}`;
          return (
            <td key={index} className={classes.cell}>
              <input
                className={classes.number}
                data-field
                inputMode="decimal"
                autoComplete="off"
                aria-label={`Trial ${index + 1}${label}`}
                aria-invalid={fault !== null}
                aria-describedby={fault ? `${id}-fault` : undefined}
                value={text}
                data-struck={struckOut(entry, index) || undefined}
                onChange={(e) => onChange(setTrial(index, e.currentTarget.value))}
                onFocus={() => onFocusTrial?.(index)}
                onBlur={() => onCommit(entry)}
                onKeyDown={keys}
              />
              {fault ? (
                <span id={`${id}-fault`} role="alert" className={classes.fault}>
                  {fault}
                </span>
              ) : null}
            </td>
          );
        })}
        {columns > fields ? <td colSpan={columns - fields} /> : null}
        <td className={classes.cell}>
          <input
            className={classes.number}
            data-field
            data-pain
            inputMode="numeric"
            autoComplete="off"
            aria-label={`Pain${label}`}
            aria-invalid={painFault(entry.pain) !== null}
            value={entry.pain}
            onChange={(e) => onChange({ ...entry, pain: e.currentTarget.value })}
            onBlur={() => onCommit(entry)}
            onKeyDown={keys}
          />
          {painFault(entry.pain) ? (
            <span role="alert" className={classes.fault}>
              {painFault(entry.pain)}
            </span>
          ) : null}
        </td>
      </tr>
      <tr>
        <td />
        <td colSpan={columns + 1} className={classes.outcome}>
          <Outcome test={test} entry={entry} last={last} />
          <StrikeOut test={test} label={label} entry={entry} onChange={onChange} onCommit={onCommit} />
          {hurts ? <PainPlace entry={entry} label={label} onChange={onChange} onCommit={onCommit} /> : null}
          {entry.touchDowns ? <span>{entry.touchDowns} touch-downs</span> : null}
        </td>
      </tr>
    </tbody>
  );
}
