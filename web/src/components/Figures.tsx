import type { ReactNode } from 'react';
import classes from './Figures.module.css';

interface Props {
  /** Figures as label and value, values already with their units. */
  figures: readonly (readonly [string, ReactNode])[];
}

/** Figures one below the other, each beside its label. */
export function Figures({ figures }: Props) {
  return (
    <dl className={classes.figures}>
      {figures.map(([label, value]) => (
        <div key={label}>
          <dt>{label}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}
