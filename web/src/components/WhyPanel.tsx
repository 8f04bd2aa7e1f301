import { Title } from '@mantine/core';
import type { ReactNode } from 'react';
import { Figures } from './Figures.tsx';
import classes from './WhyPanel.module.css';

interface Props {
  /** What is explained. */
  title: string;
  /** Figures as label and value, values already with their units. */
  figures?: readonly (readonly [string, ReactNode])[];
  /** Reasons in plain sentences, most important first. */
  reasons?: readonly string[];
  /** The main action, above the reasons so that it stays in sight. */
  action?: ReactNode;
  /** More actions at the bottom. */
  children?: ReactNode;
}

/** At the right of a step: the reasons for whatever is selected. */
export function WhyPanel({ title, figures = [], reasons = [], action, children }: Props) {
  return (
    <aside className={`card ${classes.panel}`} aria-label="Why">
      <Title order={2} size={18}>
        {title}
      </Title>
      {figures.length > 0 ? <Figures figures={figures} /> : null}
      {action}
      {reasons.length > 0 ? (
        <ul className={classes.reasons}>
          {reasons.map((reason) => (
            <li key={reason}>{reason}</li>
          ))}
        </ul>
      ) : null}
      {children}
    </aside>
  );
}
