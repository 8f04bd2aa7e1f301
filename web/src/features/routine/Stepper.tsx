import { useState } from 'react';
import classes from './Routine.module.css';

interface StepperProps {
  /** What is counted, for those who do not see it. */
  label: string;
  /** The number shown. */
  value: number;
  /** Least number. */
  min: number;
  /** Greatest number. */
  max: number;
  /** How much one press changes. */
  step: number;
  /** Another number. */
  onChange: (value: number) => void;
}

/** A figure edited by one key a step: arrow up and down, or typed. What is typed is never changed under the caret. */
export function Stepper({ label, value, min, max, step, onChange }: StepperProps) {
  const [text, setText] = useState('');
  const clamp = (figure: number) => Math.min(max, Math.max(min, figure));
  const typing = text === '' ? null : Number(text);
  // An empty field is being typed into; anything else must still say what is stored (undo changes it from outside).
  const [focused, setFocused] = useState(false);
  const shown = focused && (typing === null || clamp(typing) === value) ? text : String(value);
  return (
    <input
      type="number"
      className={classes.stepper}
      aria-label={label}
      value={shown}
      min={min}
      max={max}
      step={step}
      onFocus={() => {
        setText(String(value));
        setFocused(true);
      }}
      onBlur={() => setFocused(false)}
      onChange={(event) => {
        const next = event.currentTarget.valueAsNumber;
        setText(event.currentTarget.value);
        if (Number.isFinite(next)) onChange(clamp(next));
      }}
    />
  );
}
