import { NumberInput } from '@mantine/core';
import type { NumberInputProps } from '@mantine/core';
import classes from './UnitInput.module.css';

interface Props extends Omit<NumberInputProps, 'value' | 'onChange' | 'suffix' | 'rightSection'> {
  /** Unit shown at the right of the figure. */
  unit: string;
  value: number | null | undefined;
  /** Null when the field is emptied. */
  onChange: (value: number | null) => void;
}

/** A figure with its unit beside it. The unit is no part of the typed text, so that the caret never jumps over it. */
export function UnitInput({ unit, value, onChange, ...rest }: Props) {
  return (
    <NumberInput
      hideControls
      rightSection={<span className={classes.unit}>{unit}</span>}
      rightSectionWidth={unit.length * 7 + 14}
      rightSectionPointerEvents="none"
      value={value ?? ''}
      onChange={(next) => onChange(typeof next === 'number' ? next : null)}
      {...rest}
    />
  );
}
