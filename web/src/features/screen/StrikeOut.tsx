import type { Test } from '@yonder/core/reference';
import { useState } from 'react';
import { isOrdinal } from '@yonder/core/measure';
import { gradedByFaults, struckOut, trialValues } from './entry.ts';
import type { SideEntry } from './entry.ts';
import classes from './Screen.module.css';

interface Props {
  /** The test typed. */
  test: Test;
  /** Whose trials, for those who do not see it. */
  label: string;
  /** What is typed so far. */
  entry: SideEntry;
  /** A trial was struck out or put back. */
  onChange: (entry: SideEntry) => void;
  /** Stores it. */
  onCommit: (entry: SideEntry) => void;
}

/** Strikes a trial out with a reason, and puts it back; it stays visible and does not count. */
export function StrikeOut({ test, label, entry, onChange, onCommit }: Props) {
  const [trial, setTrial] = useState<number | null>(null);
  const [reason, setReason] = useState('');
  if (isOrdinal(test) || gradedByFaults(test)) return null;
  const put = (struck: SideEntry['struck']) => {
    onChange({ ...entry, struck });
    onCommit({ ...entry, struck });
    setTrial(null);
    setReason('');
  };
  const open = entry.trials.flatMap((text, field) => (text && !struckOut(entry, field) ? [field] : []));
  return (
    <span className={classes.strike}>
      {entry.struck.map((one) => (
        <span key={one.trial}>
          trial {one.trial + 1} struck out: {one.reason}{' '}
          <button
            type="button"
            onClick={() => put(entry.struck.filter((other) => other.trial !== one.trial))}
          >
            put back
          </button>
        </span>
      ))}
      {trial === null ? (
        trialValues(test, entry).length > 1 ? (
          <button type="button" onClick={() => setTrial(open.at(-1) ?? 0)}>
            strike a trial out{label ? <span className="visually-hidden">,{label}</span> : null}
          </button>
        ) : null
      ) : (
        <>
          <select
            aria-label={`Trial to strike out${label}`}
            value={trial}
            onChange={(event) => setTrial(Number(event.currentTarget.value))}
          >
            {open.map((field) => (
              <option key={field} value={field}>
                trial {field + 1}: {entry.trials[field]}
              </option>
            ))}
          </select>
          <input
            aria-label={`Why it does not count${label}`}
            placeholder="why?"
            value={reason}
            onChange={(event) => setReason(event.currentTarget.value)}
          />
          <button
            type="button"
            disabled={reason.trim().length < 3}
            onClick={() => put([...entry.struck, { trial, reason: reason.trim() }])}
          >
            strike out
          </button>
          <button type="button" onClick={() => setTrial(null)}>
            leave it
          </button>
        </>
      )}
    </span>
  );
}
