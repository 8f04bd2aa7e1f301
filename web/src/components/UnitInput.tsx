import { TextInput } from '@mantine/core';
import type { TextInputProps } from '@mantine/core';
import { useState } from 'react';
import type { KeyboardEvent } from 'react';
import { readNumber } from '../app/readNumber.ts';
import classes from './UnitInput.module.css';

interface Props extends Omit<TextInputProps, 'value' | 'onChange' | 'rightSection'> {
  /** Unit shown at the right of the figure. */
  unit: string;
  /** Null and undefined show an empty field. */
  value: number | null | undefined;
  /** Null when the field is emptied or holds no number. */
  onChange: (value: number | null) => void;
  /** Least value that is taken. */
  min?: number;
  /** Greatest value that is taken. */
  max?: number;
  /** What an arrow key changes. @default 1 */
  step?: number;
}

/**
 * A figure with its unit beside it, typed as text: what is typed is never reformatted under the caret, however fast.
 * A comma counts as the decimal point; the arrow keys go a step up or down.
 */
export function UnitInput({ unit, value, onChange, min, max, step = 1, error, ...rest }: Props) {
  const [text, setText] = useState('');
  const current = value ?? null;
  const shown = readNumber(text) === current ? text : String(current ?? '');
  const type = (next: string) => {
    setText(next);
    onChange(readNumber(next));
  };
  const arrows = (event: KeyboardEvent) => {
    const by = event.key === 'ArrowUp' ? step : event.key === 'ArrowDown' ? -step : 0;
    if (by === 0) return;
    event.preventDefault();
    type(String(Math.min(max ?? Infinity, Math.max(min ?? -Infinity, (current ?? 0) + by))));
  };
  return (
    <TextInput
      inputMode="decimal"
      autoComplete="off"
      rightSection={<span className={classes.unit}>{unit}</span>}
      rightSectionWidth={unit.length * 7 + 14}
      rightSectionPointerEvents="none"
      value={shown}
      onChange={(event) => type(event.currentTarget.value)}
      onKeyDown={arrows}
      error={error ?? (shown.trim() !== '' && readNumber(shown) === null ? 'not a number' : null)}
      {...rest}
    />
  );
}
