import { Button, Group, Text } from '@mantine/core';
import type { Side } from '@yonder/core/domain';
import type { Test } from '@yonder/core/reference';
import { figure } from '@yonder/core/words';
import { useState } from 'react';
import { UnitInput } from '../../components/UnitInput.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './Clocks.module.css';
import { conversionOf } from './convert.ts';

interface Props {
  /** The test read. */
  test: Test;
  /** The side read. */
  side: Side;
  /** Where the value goes: "left, trial 2". */
  target: string;
  /** The reading in the unit of the test. */
  onTake: (value: number) => void;
}

/** A reading in centimetres or newtons, normalised to limb length or body mass; nothing where the unit is direct. */
export function RawReading({ test, side, target, onTake }: Props) {
  const { case: input } = useWorkspace();
  const [raw, setRaw] = useState<number | null>(null);
  const [lever, setLever] = useState<number | null>(null);
  const conversion = conversionOf(test, input.athlete, side);
  if (!conversion) return null;
  if ('missing' in conversion) {
    return (
      <Text size="sm" c="var(--muted)" mt="sm">
        Enter the {conversion.missing} in the story to type raw readings here.
      </Text>
    );
  }
  const ready = raw !== null && (!conversion.lever || (lever !== null && lever > 0));
  const value = ready ? conversion.convert(raw, lever ?? 0) : null;
  const take = () => {
    if (value === null) return;
    onTake(value);
    setRaw(null);
  };
  return (
    <Group gap="xs" className={classes.clock} align="flex-end">
      <UnitInput
        w={130}
        size="xs"
        label="Raw reading"
        unit={conversion.from}
        value={raw}
        onChange={setRaw}
        onKeyUp={(event) => event.key === 'Enter' && take()}
      />
      {conversion.lever ? (
        <UnitInput w={120} size="xs" label="Lever arm" unit="cm" value={lever} onChange={setLever} />
      ) : null}
      <Button size="xs" variant="light" disabled={value === null} onClick={take}>
        {value === null ? 'Take' : `Take ${figure(value, test.unit)}`}
      </Button>
      <span className="muted">
        by {conversion.by}, into {target}
      </span>
    </Group>
  );
}
