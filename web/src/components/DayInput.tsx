import { DateInput } from '@mantine/dates';
import type { DateInputProps } from '@mantine/dates';
import '@mantine/dates/styles.css';
import { parseDay } from '../app/today.ts';

interface Props {
  /** Words above the field. */
  label: string;
  /** ISO day; empty for none. */
  value?: string;
  /** Another day, or empty. */
  onChange: (value: string) => void;
  /** Why the day cannot be taken. */
  error?: DateInputProps['error'];
  /** @default 'sm' */
  size?: DateInputProps['size'];
  /** Width in px, with the words where they stand beside it. @default 140 */
  w?: number;
}

/** A day, typed as people write it (14 Mar 2027, 14.3.2027, 2027-03-14) or picked; shown the one way all days are. */
export function DayInput({ label, value, onChange, error, size = 'sm', w = 140 }: Props) {
  return (
    <DateInput
      label={label}
      size={size}
      w={w}
      error={error}
      value={value || null}
      onChange={(day) => onChange(day ?? '')}
      valueFormat="D MMM YYYY"
      placeholder="14 Mar 2027"
      dateParser={(text) => parseDay(text)}
      fixOnBlur={false}
      allowDeselect
      minDate="1900-01-01"
      maxDate="2199-12-31"
    />
  );
}
