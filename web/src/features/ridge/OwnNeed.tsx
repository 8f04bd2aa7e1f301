import { Button, Group, Text, TextInput } from '@mantine/core';
import type { Side } from '@yonder/core/domain';
import type { Test } from '@yonder/core/reference';
import { figure, unitWord } from '@yonder/core/words';
import { useState } from 'react';
import { Refusal } from '../../components/Refusal.tsx';
import { useKeptState } from '../../app/kept/useKept.ts';
import { dayText } from '../../app/today.ts';
import { UnitInput } from '../../components/UnitInput.tsx';
import { usePutNeedMutation, useRemoveNeedMutation } from '../athletes/saidEndpoints.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';

interface Props {
  /** The test the need is for. */
  test: Test;
  /** The side the need is for. */
  side: Side;
  /** The need in force, in the unit of the test. */
  need: number;
  /** Before a change: the finding stays the one shown, wherever it moves. */
  onSay: () => void;
}

/** This athlete's own need for a test and side: replaces task and floor, with a reason. */
export function OwnNeed({ test, side, need, onSay }: Props) {
  const { athlete } = useWorkspace();
  const [put, { isLoading, error }] = usePutNeedMutation();
  const [remove, removing] = useRemoveNeedMutation();
  const typed = useKeptState(`need/${athlete.id}/${test.id}/${side}`, 'An own need', {
    value: need as number | null,
    reason: '',
  });
  const { value, reason } = typed.value;
  const setValue = (next: number | null) => typed.set({ value: next, reason });
  const setReason = (next: string) => typed.set({ value, reason: next });
  const [open, setOpen] = useState(typed.restored);
  const own = athlete.needs.find((n) => n.test === test.id && n.side === side);
  const save = () => {
    onSay();
    return put({
      athleteId: athlete.id,
      test: test.id,
      side,
      body: { value: value ?? need, reason, version: own?.version ?? null },
    })
      .unwrap()
      .then(
        () => {
          typed.done();
          setOpen(false);
        },
        () => undefined,
      );
  };
  if (own && !open) {
    return (
      <Text size="xs">
        Own need {figure(own.value, test.unit)}, {own.setBy}, {dayText(own.setOn)}: {own.reason}{' '}
        <Button
          size="compact-xs"
          variant="light"
          loading={removing.isLoading}
          onClick={() => {
            onSay();
            void remove({ athleteId: athlete.id, test: test.id, side, version: own.version });
          }}
        >
          Take back
        </Button>
      </Text>
    );
  }
  if (!open) {
    return (
      <Button size="compact-sm" variant="subtle" onClick={() => setOpen(true)}>
        Own need…
      </Button>
    );
  }
  return (
    <div>
      <UnitInput
        size="xs"
        label={`Own need, ${side === 'central' ? 'central' : side}`}
        unit={unitWord(test.unit)}
        value={value}
        onChange={setValue}
      />
      <TextInput
        size="xs"
        label="Why"
        value={reason}
        maxLength={1000}
        onChange={(e) => setReason(e.currentTarget.value)}
      />
      <Group gap={6} mt={6}>
        <Button
          size="compact-sm"
          loading={isLoading}
          disabled={value === null || reason.trim().length < 3}
          onClick={() => void save()}
        >
          Save need
        </Button>
        <Button
          size="compact-sm"
          variant="subtle"
          onClick={() => {
            typed.discard();
            setOpen(false);
          }}
        >
          Cancel
        </Button>
      </Group>
      <Refusal error={error} mt={4} />
    </div>
  );
}
