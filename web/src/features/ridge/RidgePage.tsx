import { Alert, Button, SegmentedControl, Text, Title } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import type { Capacity, Finding } from '@yonder/core/findings';
import { figure, nameOf, number, percent, reasonText, signedFigure, withSide } from '@yonder/core/words';
import { useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { useReference } from '../../app/reference.tsx';
import { dayText, shortDay } from '../../app/today.ts';
import { WhyPanel } from '../../components/WhyPanel.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { RankedList } from './RankedList.tsx';
import classes from './Ridge.module.css';
import { RidgeChart } from './RidgeChart.tsx';
import { RidgeTable } from './RidgeTable.tsx';

function useWhy(finding: Finding | null) {
  const reference = useReference();
  const { report } = useWorkspace();
  if (!finding) return null;
  const row = finding.evidence[0];
  const test = reference.tests.get(row?.test ?? '');
  if (!row || !test) return null;
  const other = report.capacities.find(
    (c) => c.test === row.test && c.side !== row.side && c.side !== 'central',
  );
  const change = report.changes.find((c) => c.test === row.test && c.side === row.side);
  const figures: [string, string][] = [
    ['Has', `${figure(row.estimate, test.unit)}${row.sd === null ? '' : ` ± ${number(row.sd, 1)}`}`],
    ['Needs', figure(row.need, test.unit)],
    ['Asked by', row.needSource.kind === 'task' ? nameOf(reference, row.needSource.id) : row.needSource.kind],
    ['Reserve', signedFigure(row.reserve, test.unit)],
    ['Margin', number(row.margin, 2)],
    ['Short with', percent(row.pShort)],
  ];
  if (other) figures.push([`Other side`, figure(other.estimate, test.unit)]);
  if (change)
    figures.push([`Since ${shortDay(change.fromDate)}`, signedFigure(change.difference, test.unit)]);
  const rescreen = report.rescreen.find((r) => r.test === row.test && r.side === row.side);
  if (rescreen) figures.push(['Rescreen', dayText(rescreen.due)]);
  return { title: withSide(nameOf(reference, finding.restriction), finding.side), figures, test };
}

function Why({ finding }: { finding: Finding | null }) {
  const reference = useReference();
  const { report } = useWorkspace();
  const navigate = useNavigate();
  const location = useLocation();
  const why = useWhy(finding);
  const toRoutine = () => navigate({ pathname: '../routine', search: location.search }, { relative: 'path' });
  useHotkeys([['B', () => void toRoutine()]]);
  if (!finding || !why) {
    return (
      <WhyPanel title="Nothing to explain yet">
        <Text size="sm">Screen a region first; what is short appears here with its reasons.</Text>
      </WhyPanel>
    );
  }
  const asymmetry = report.asymmetries.find((a) => a.test === why.test.id && a.state === 'possible-repeat');
  const drills = reference.data.drills.filter((d) =>
    d.serves.some((s) => s.restriction === finding.restriction && s.match >= 0.4),
  ).length;
  const neighbours = reference.restrictions.get(finding.restriction)?.neighbours ?? [];
  return (
    <WhyPanel
      title={why.title}
      figures={why.figures}
      reasons={[
        ...finding.reasons.map((reason) => reasonText(reference, reason)),
        ...(asymmetry ? ['The sides differ beyond their limit but inside the error: possible, repeat.'] : []),
        ...(neighbours.length > 0
          ? [
              `Look also at: ${neighbours
                .slice(0, 2)
                .map((n) => nameOf(reference, n.restriction).toLowerCase())
                .join(', ')}.`,
            ]
          : []),
        `Figures: ${why.test.confidence} confidence, editable.`,
      ]}
    >
      <Button fullWidth onClick={() => void toRoutine()} rightSection={<kbd className={classes.key}>B</kbd>}>
        Build routine
      </Button>
      <Text size="xs" c="var(--muted)" mt={6}>
        {drills} drills serve this; those that fit kit, minutes and precautions are chosen.
      </Text>
    </WhyPanel>
  );
}

function Changes() {
  const reference = useReference();
  const { report } = useWorkspace();
  const real = report.changes.filter((c) => c.real === 'yes');
  if (report.changes.length === 0) return null;
  return (
    <Text size="sm" className={classes.changes}>
      <b>Since last time: </b>
      {real.length === 0
        ? 'no change beyond the error.'
        : real
            .map(
              (c) =>
                `${withSide(nameOf(reference, c.test), c.side)} ${signedFigure(c.difference, reference.tests.get(c.test)?.unit ?? '')} (${c.difference > 0 ? 'better' : 'worse'})`,
            )
            .join('; ')}
    </Text>
  );
}

/** Ridge: what the results mean. The picture, the ranked restrictions, and why. */
export function RidgePage() {
  const { report, region, selectRegion } = useWorkspace();
  const [view, setView] = useState('picture');
  const [scope, setScope] = useState('all');
  const [picked, setPicked] = useState<string | null>(null);
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
            result cannot decide. Bars: 90 % of today’s estimate. Dashed: the screening before.
          </Text>
          {view === 'picture' ? (
            <RidgeChart
              report={report}
              region={region}
              selected={row ? { test: row.test, side: row.side } : null}
              onSelect={pickCapacity}
            />
          ) : (
            <RidgeTable report={report} />
          )}
        </section>
        <section className={`card ${classes.list}`}>
          <div className={classes.pictureHead}>
            <Changes />
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
        </section>
      </div>
      <Why finding={selected} />
    </div>
  );
}
