import { Group, SegmentedControl, Text } from '@mantine/core';
import type { Side } from '@yonder/core/domain';
import type { Test } from '@yonder/core/reference';
import { SIDE_LABEL, unitWord } from '@yonder/core/words';
import type { KeyboardEvent } from 'react';
import { Link } from 'react-router';
import { readNumber } from '../../app/readNumber.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { conversionOf, needsLever } from './convert.ts';
import type { Measured } from './convert.ts';
import classes from './Screen.module.css';

interface Props {
  /** The test typed. */
  test: Test;
  /** Sides that may be tested. */
  sides: readonly Side[];
  /** How the fields are read now; null in the unit of the test. */
  measured: Measured | null;
  /** Read as they are measured, or in the unit of the test. */
  onUnit: (asMeasured: boolean) => void;
  /** The lever arm in cm, for all sides. */
  onLever: (lever: number | null) => void;
  /** Enter in the lever's field: go to the next one. */
  onEnter: (field: HTMLInputElement) => void;
}

/** Whether fields hold what tape or dynamometer shows, or the unit of the test; and what turns one into the other. */
export function ReadIn({ test, sides, measured, onUnit, onLever, onEnter }: Props) {
  const { case: input } = useWorkspace();
  const ways = sides.map((side) => ({ side, way: conversionOf(test, input.athlete, side) }));
  const first = ways[0]?.way ?? null;
  if (!first) return null;
  if ('missing' in first) {
    return (
      <Text size="sm" c="var(--muted)" mb={6}>
        Typed in {unitWord(test.unit)}. With the <Link to="../story">{first.missing}</Link> in the story it
        can be typed as measured.
      </Text>
    );
  }
  const by = ways.map(({ side, way }) => ({ side, by: way && 'by' in way ? way.by : '' }));
  const same = by.every((one) => one.by === by[0]?.by);
  const words = same ? by[0]?.by : by.map((one) => `${SIDE_LABEL[one.side]} ${one.by}`).join(', ');
  const keys = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    onEnter(event.currentTarget);
  };
  return (
    <Group gap={8} mb={6} className={classes.readIn}>
      <SegmentedControl
        size="xs"
        aria-label="Typed in"
        value={measured ? 'measured' : 'test'}
        onChange={(value) => onUnit(value === 'measured')}
        data={[
          { value: 'measured', label: first.measured.unit },
          { value: 'test', label: unitWord(test.unit) },
        ]}
      />
      {measured && needsLever(test) ? (
        <label className={classes.lever}>
          Lever arm{' '}
          <input
            className={classes.number}
            data-field
            inputMode="decimal"
            autoComplete="off"
            defaultValue={measured.lever ?? ''}
            onChange={(event) => onLever(readNumber(event.currentTarget.value))}
            onKeyDown={keys}
          />{' '}
          cm
        </label>
      ) : null}
      {measured ? <span className="muted">by {words}</span> : null}
    </Group>
  );
}
