import { Button, Group, Text } from '@mantine/core';
import type { RefitChange } from '@yonder/core/builder';
import { nameOf, reasonText, ruleText } from '@yonder/core/words';
import type { Calls } from '../../workers/protocol.ts';
import { useReference } from '../../app/reference.tsx';
import classes from './Routine.module.css';

/** What a re-fit came to, until it is put away. */
export interface RefitNote {
  readonly title: string;
  readonly changes: readonly RefitChange[];
  /** Lines that safety keeps out today, of those that were taken word by word. */
  readonly held: Calls['wordByWord']['answer']['held'];
}

const WHAT: readonly [RefitChange['what'], string][] = [
  ['kept', 'Kept'],
  ['one-side', 'On one side'],
  ['level', 'Another level'],
  ['swapped', 'In place of'],
  ['left-out', 'Left out'],
  ['added', 'Added'],
];

/** What fitting a template or deriving a version changed, drill by drill, with the reason. */
export function Refit({ note, onClose }: { note: RefitNote; onClose: () => void }) {
  const reference = useReference();
  const lineOf = ({ drill, instead, what, why }: RefitChange) => {
    const name = nameOf(reference, drill);
    if (what === 'kept') return name;
    const reason = reasonText(reference, why);
    return instead ? `${name} → ${nameOf(reference, instead)}. ${reason}` : `${name}. ${reason}`;
  };
  return (
    <section className={`card ${classes.refit}`} aria-label="What was fitted">
      <Group justify="space-between" wrap="nowrap">
        <Text fw={650}>{note.title}</Text>
        <Button size="compact-xs" variant="subtle" onClick={onClose}>
          Close
        </Button>
      </Group>
      {note.changes.length + note.held.length === 0 ? <span>Every line is as it is written.</span> : null}
      {note.held.length > 0 ? (
        <div className={classes.refitPart}>
          <b>Not now</b>
          <ul>
            {note.held.map(({ index, fault, instead }) => (
              <li key={index}>
                {nameOf(reference, fault.drill)}: {ruleText(reference, fault.rule, fault.about)}
                {instead ? ` Nearest allowed: ${nameOf(reference, instead.drill)}.` : ''}
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      {WHAT.map(([what, label]) => {
        const own = note.changes.filter((change) => change.what === what);
        if (own.length === 0) return null;
        return (
          <div key={what} className={classes.refitPart}>
            <b>{label}</b>
            {what === 'kept' ? (
              <span>{own.map(lineOf).join(', ')}</span>
            ) : (
              <ul>
                {own.map((change) => (
                  <li key={change.drill}>{lineOf(change)}</li>
                ))}
              </ul>
            )}
          </div>
        );
      })}
    </section>
  );
}
