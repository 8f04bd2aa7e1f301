import { Alert, Button, SegmentedControl, Text, Title } from '@mantine/core';
import { compareDates } from '@yonder/core/findings';
import type { Capacity, Finding } from '@yonder/core/findings';
import { RATIO_RULES } from '@yonder/core/measure';
import { figure, nameOf, number, signedFigure, withSide } from '@yonder/core/words';
import { useState } from 'react';
import { Allowed } from '../../app/Allowed.tsx';
import { useReference } from '../../app/reference.tsx';
import { dayText } from '../../app/today.ts';
import { MethodsInForce } from '../methods/MethodsInForce.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { RankedList } from './RankedList.tsx';
import classes from './Ridge.module.css';
import { RidgeChart } from './RidgeChart.tsx';
import { RidgeTable } from './RidgeTable.tsx';
import { SeenByEye } from './SeenByEye.tsx';
import { Suggested } from './Suggested.tsx';
import { Why } from './Why.tsx';

interface Comparison {
  /** Day compared with; null for the screening before. */
  day: string | null;
  onDay: (day: string | null) => void;
}

/** What really changed since the last time, or since any day chosen; better and worse. */
function Changes({ day, onDay }: Comparison) {
  const reference = useReference();
  const { assessment, on, report } = useWorkspace();
  const days = assessment.standing.screenings.map((s) => s.date).filter((date) => date < on);
  const changes =
    day === null ? report.changes : compareDates(assessment.reference, assessment.standing, day, on);
  const real = changes.filter((c) => c.real === 'yes');
  if (report.changes.length === 0) return null;
  const better = real.filter((c) => c.difference > 0);
  const worse = real.filter((c) => c.difference < 0);
  const list = (rows: typeof real) =>
    rows
      .map(
        (c) =>
          `${withSide(nameOf(reference, c.test), c.side)} ${signedFigure(c.difference, reference.tests.get(c.test)?.unit ?? '')}`,
      )
      .join('; ');
  return (
    <Text size="sm" className={classes.changes} component="div">
      <label>
        <b>Since </b>
        <select
          className={classes.compare}
          aria-label="Compare with"
          value={day ?? ''}
          onChange={(e) => onDay(e.currentTarget.value || null)}
        >
          <option value="">last time</option>
          {[...days].reverse().map((date) => (
            <option key={date} value={date}>
              {dayText(date)}
            </option>
          ))}
        </select>
        <b>: </b>
      </label>
      {changes.length === 0 ? 'nothing was measured anew.' : null}
      {changes.length > 0 && real.length === 0 ? 'no change beyond the error.' : null}
      {better.length > 0 ? <span>better: {list(better)}. </span> : null}
      {worse.length > 0 ? <span>worse: {list(worse)}.</span> : null}
    </Text>
  );
}

/** Muscle against its opposite and the throwing arc, with their own error; they explain and never rank. */
function Ratios() {
  const { report } = useWorkspace();
  const { arcs, ratios } = report;
  if (ratios.length === 0 && !arcs) return null;
  return (
    <div className={classes.ratios}>
      <b>Muscle against its opposite, and arcs</b>
      <ul className={classes.suggested}>
        {ratios.map((ratio) => {
          const rule = RATIO_RULES.find((r) => r.id === ratio.id);
          return (
            <li key={`${ratio.id}/${ratio.side}`}>
              {withSide(rule?.name ?? ratio.id, ratio.side)}: <b>{number(ratio.value, 2)}</b> (95 %{' '}
              {number(ratio.low95, 2)} to {number(ratio.high95, 2)})
              {ratio.limit === null ? ', no limit' : `, limit ${ratio.limit}: ${RATIO_STATE[ratio.state]}`}{' '}
              <span className="muted">{rule?.source}</span>
            </li>
          );
        })}
        {arcs ? (
          <li>
            Shoulder rotation arc (internal + external): left <b>{figure(arcs.left, 'deg')}</b>, right{' '}
            <b>{figure(arcs.right, 'deg')}</b>, difference {figure(Math.abs(arcs.difference), 'deg')},{' '}
            {arcs.beyondError ? 'beyond' : 'within'} its error of {figure(arcs.mdc95, 'deg')}
          </li>
        ) : null}
      </ul>
    </div>
  );
}

const RATIO_STATE = {
  below: 'below, beyond its error',
  'within-error': 'below, within its error',
  enough: 'enough',
  'no-limit': '',
} as const;

/** Methods that decide what counts as short. */
const JUDGING = ['flag-inside-error', 'symmetry-denominator', 'throwing-shoulder-range', 'pain-limit'];

/** Ridge: what the results mean. The picture, the ranked restrictions, and why. */
export function RidgePage() {
  const { report, region, selectRegion } = useWorkspace();
  const [view, setView] = useState('picture');
  const [scope, setScope] = useState('all');
  const [picked, setPicked] = useState<string | null>(null);
  const [compareDay, setCompareDay] = useState<string | null>(null);
  const [adding, setAdding] = useState(false);
  const listed = report.findings.filter((f) => f.severity > 0 && (scope === 'all' || f.region === region));
  const keyOf = (f: Finding) => `${f.restriction}/${f.side}`;
  const selected = report.findings.find((f) => keyOf(f) === picked) ?? listed[0] ?? null;
  const row = selected?.evidence[0];
  const pickCapacity = (capacity: Capacity) => {
    const finding = report.findings.find((f) =>
      f.evidence.some((e) => e.test === capacity.test && e.side === capacity.side),
    );
    if (finding) setPicked(keyOf(finding));
    selectRegion(capacity.region === 'whole-body' ? region : capacity.region);
  };
  const emergency = report.blocked.find((b) => b.level === 'E');
  if (emergency) {
    return (
      <Alert color="red" title="No findings are shown">
        {emergency.action}
      </Alert>
    );
  }
  return (
    <div className={classes.page}>
      <div className={classes.main}>
        <section className={`card ${classes.picture}`}>
          <div className={classes.pictureHead}>
            <Title order={2} size={20}>
              Where the reserve runs out
            </Title>
            <SegmentedControl
              size="xs"
              value={view}
              onChange={setView}
              data={[
                { value: 'picture', label: 'Ridge' },
                { value: 'table', label: 'Table' },
              ]}
            />
          </div>
          <Text size="sm" c="var(--muted)">
            Height is reserve ÷ smallest real change. Below the line is short of need; in the mist one fresh
            result cannot decide. Bars: 90 % of today’s estimate. Dashed:{' '}
            {compareDay === null ? 'the screening before' : dayText(compareDay)}.{' '}
            <MethodsInForce schools={JUDGING} />
          </Text>
          {view === 'picture' ? (
            <RidgeChart
              report={report}
              region={region}
              selected={row ? { test: row.test, side: row.side } : null}
              onSelect={pickCapacity}
              compareDay={compareDay}
            />
          ) : (
            <RidgeTable report={report} />
          )}
        </section>
        <section className={`card ${classes.list}`}>
          <div className={classes.pictureHead}>
            <Changes day={compareDay} onDay={setCompareDay} />
            <Allowed least="clinician">
              <Button size="compact-sm" variant="light" onClick={() => setAdding(true)}>
                Seen by eye…
              </Button>
            </Allowed>
            <SegmentedControl
              size="xs"
              value={scope}
              onChange={setScope}
              data={[
                { value: 'all', label: 'All regions' },
                { value: 'region', label: 'This region' },
              ]}
            />
          </div>
          <RankedList findings={listed} selected={selected} onSelect={(f) => setPicked(keyOf(f))} />
          <Suggested />
          <Ratios />
        </section>
      </div>
      <Why finding={selected} onKeep={() => selected && setPicked(keyOf(selected))} />
      {adding ? <SeenByEye region={region} onClose={() => setAdding(false)} /> : null}
    </div>
  );
}
