import classes from './Routine.module.css';

interface StepperProps {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  onChange: (value: number) => void;
}

/** A figure edited by one key a step: arrow up and down, or typed. */
export function Stepper({ label, value, min, max, step, onChange }: StepperProps) {
  return (
    <input
      type="number"
      className={classes.stepper}
      aria-label={label}
      value={value}
      min={min}
      max={max}
      step={step}
      onChange={(event) => {
        const next = event.currentTarget.valueAsNumber;
        if (Number.isFinite(next)) onChange(Math.min(max, Math.max(min, next)));
      }}
    />
  );
}
