import { Slider } from '@mantine/core';
import classes from './Editor.module.css';

interface Props {
  /** What it sets. */
  label: string;
  /** Where it stands. */
  value: number;
  /** How far it goes. */
  range: readonly [low: number, high: number];
  /** Degrees; else a bare number. */
  degrees: boolean;
  /** It was let go at another value. */
  onSet: (value: number) => void;
}

/** A number of the drawing, with its value and its range beside; set when it is let go. */
export function NumberSlider({ label, value, range: [min, max], degrees, onSet }: Props) {
  return (
    <div className={classes.setting}>
      <span>
        {label}
        <b>
          {Math.round(value * 10) / 10}
          {degrees ? '°' : ''}
        </b>
      </span>
      <Slider
        key={value}
        size="sm"
        label={null}
        thumbLabel={label}
        min={min}
        max={max}
        step={max - min <= 2 ? 0.05 : 1}
        defaultValue={value}
        onChangeEnd={(next) => next !== value && onSet(next)}
      />
      <small>
        {min} to {max}
      </small>
    </div>
  );
}
