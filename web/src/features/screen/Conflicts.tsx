import { Alert, Button, Group, Text } from '@mantine/core';
import type { ResultRow } from '@yonder/core/contracts';
import type { Test } from '@yonder/core/reference';
import { SIDE_LABEL, unitWord } from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';
import { entryOf } from './entry.ts';
import type { SideEntry } from './entry.ts';
import type { Conflict, ResultSender } from './ResultSender.ts';

/** What an entry holds, in words: its trials, grade and pain. */
function entryText(test: Test, entry: SideEntry): string {
  const trials = entry.trials.filter(Boolean).join(', ');
  const faults = entry.faults ? `${entry.faults.length} faults marked` : '';
  const pain = entry.pain ? `pain ${entry.pain}/10` : '';
  return (
    [trials ? `${trials} ${entry.measured?.unit ?? unitWord(test.unit)}` : faults, pain]
      .filter(Boolean)
      .join(', ') || 'nothing'
  );
}

interface Props {
  /** Sides for which two values exist, by their key. */
  conflicts: readonly (readonly [string, Conflict])[];
  /** Stores the one that is chosen. */
  sender: ResultSender;
  /** Theirs was taken: the fields have to show it. */
  onTaken: () => void;
}

/** Somebody, or another tab, stored another value meanwhile: both are shown, and one is chosen. */
export function Conflicts({ conflicts, sender, onTaken }: Props) {
  const reference = useReference();
  return conflicts.map(([key, { mine, theirs }]) => {
    const test = reference.tests.get(mine.test);
    if (!test) return null;
    const theirText = theirs ? entryText(test, entryOf(theirs as ResultRow)) : 'nothing (taken away)';
    return (
      <Alert key={key} color="copper" role="alert" p={8} mb={6} title="Two values for one place">
        <Text size="sm">
          {test.name}
          {mine.side === 'central' ? '' : `, ${SIDE_LABEL[mine.side]}`}: you typed{' '}
          <b>{entryText(test, mine.entry)}</b>; stored meanwhile: <b>{theirText}</b>.
        </Text>
        <Group gap="xs" mt={6}>
          <Button size="compact-sm" onClick={() => sender.keepMine(key)}>
            Store mine
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => {
              sender.takeTheirs(key);
              onTaken();
            }}
          >
            Keep what is stored
          </Button>
        </Group>
      </Alert>
    );
  });
}
