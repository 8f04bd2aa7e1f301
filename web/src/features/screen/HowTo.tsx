import { Title } from '@mantine/core';
import type { Test } from '@yonder/core/reference';
import { figure, unitWord } from '@yonder/core/words';
import { useEffect, useRef } from 'react';
import { TestPicture } from '../picture/TestPicture.tsx';
import classes from './Screen.module.css';

function sourceText(test: Test): string {
  if (test.source === 'convention') return 'Convention; no single source.';
  return `${test.source.map((s) => `${s.authors} ${s.year}`).join('; ')} (recalled, not verified)`;
}

/** How the test is done, the usual errors, and where its figures come from. `called` brings it into view; the focus stays where it is. */
export function HowTo({ test, called }: { test: Test; called: number }) {
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    if (called > 0) heading.current?.scrollIntoView({ block: 'nearest' });
  }, [called]);
  const { deficit, asymmetry } = test.flag;
  // A grade needs no unit beside it.
  const unit = test.unit === 'grade-0-3' ? '' : unitWord(test.unit);
  return (
    <aside className={`card ${classes.howto}`} aria-labelledby="howto-title">
      <Title order={3} size={16} id="howto-title" tabIndex={-1} ref={heading}>
        How to
      </Title>
      <TestPicture key={test.id} test={test} />
      <p>{test.procedure}</p>
      <p>
        <b>Kit:</b> {test.equipment}. <b>Caution:</b> {test.cautions}
      </p>
      <dl>
        <dt>Floor</dt>
        <dd>
          {deficit?.below !== undefined ? `below ${figure(deficit.below, test.unit)}` : ''}
          {deficit?.above !== undefined ? ` above ${figure(deficit.above, test.unit)}` : ''}
        </dd>
        <dt>Sides</dt>
        <dd>
          {asymmetry ? `${asymmetry.threshold} ${asymmetry.kind === 'absolute' ? unit : '%'}` : 'central'}
        </dd>
        <dt>Error (SEM)</dt>
        <dd>
          {test.sem.value} {unit}
        </dd>
        <dt>Usual</dt>
        <dd>
          {test.reference.low} to {test.reference.high} {unit}, {test.reference.population}
        </dd>
        <dt>Confidence</dt>
        <dd>{test.confidence}</dd>
      </dl>
      <p className="muted">{sourceText(test)}</p>
    </aside>
  );
}
