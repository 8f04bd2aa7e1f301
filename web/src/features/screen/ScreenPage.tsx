import { Alert, Button, Group, Text, Title } from '@mantine/core';
import type { ScreeningRow } from '@yonder/core/contracts';
import type { Reference, Test } from '@yonder/core/reference';
import { safetyState, testAllowed } from '@yonder/core/safety';
import type { SafetyState } from '@yonder/core/safety';
import { nameOf, reasonText } from '@yonder/core/words';
import { useMemo, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { Link, useLocation } from 'react-router';
import { sidesOfTest } from '@yonder/core/findings';
import { useMay } from '../../app/may.ts';
import { Allowed, Locked } from '../../app/Allowed.tsx';
import { useReference } from '../../app/reference.tsx';
import { dayText, today } from '../../app/today.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { GatePanel } from '../gate/GatePanel.tsx';
import { useGate } from '../gate/useGate.ts';
import { VisitGate } from '../gate/VisitGate.tsx';
import { Conflicts } from './Conflicts.tsx';
import { HowTo } from './HowTo.tsx';
import classes from './Screen.module.css';
import { useFinishScreeningMutation, useScreeningsQuery } from './screeningEndpoints.ts';
import { TestEntry } from './TestEntry.tsx';
import { TryOut } from './TryOut.tsx';
import { TestList } from './TestList.tsx';
import { testsOfRegion } from './testsOfRegion.ts';
import { useBattery } from './useBattery.ts';
import type { BatteryScope } from './useBattery.ts';
import { useResultSaver } from './useResultSaver.ts';
import type { SaveState } from './useResultSaver.ts';

function SaveNote({ state }: { state: SaveState }) {
  if (state.kind === 'faulty' || state.kind === 'refused') {
    return (
      <Alert color="copper" role="alert" p={8}>
        Not stored: {state.message}
      </Alert>
    );
  }
  if (state.kind === 'waiting') {
    return (
      <Alert color="copper" role="status" p={8}>
        The server cannot be reached: {state.count} {state.count === 1 ? 'value is' : 'values are'} kept on
        this device and sent as soon as it answers.
      </Alert>
    );
  }
  const text = { idle: '', saving: 'Storing…', stored: 'Stored.' }[state.kind];
  return (
    <Text size="sm" c="var(--muted)" role="status">
      {text}
    </Text>
  );
}

/** Where a visit goes on: the first test not fully entered, else the first. */
function firstOpen(
  tests: readonly Test[],
  visit: ScreeningRow | null,
  safety: SafetyState,
): Test | undefined {
  const done = (test: Test) =>
    sidesOfTest(test)
      .filter((side) => testAllowed(safety.gates, test, side))
      .every((side) => visit?.results.some((r) => r.test === test.id && r.side === side));
  return tests.find((test) => !done(test)) ?? tests[0];
}

function useVisits() {
  const { athlete, on } = useWorkspace();
  const { data } = useScreeningsQuery(athlete.id);
  const rows = data ?? [];
  return {
    ready: data !== undefined,
    visit: rows.find((row) => row.date === on) ?? null,
    earlier: rows.filter((row) => row.date < on),
  };
}

function Suggestion({ reference }: { reference: Reference }) {
  const { report } = useWorkspace();
  if (!report.nextTest) return null;
  return (
    <Text size="sm">
      Next most useful: <b>{nameOf(reference, report.nextTest.test)}</b>.{' '}
      <span className="muted">
        {report.nextTest.why.map((reason) => reasonText(reference, reason)).join(' ')}
      </span>
    </Text>
  );
}

function FinishBar({ visit, state }: { visit: ScreeningRow | null; state: SaveState }) {
  const { athlete } = useWorkspace();
  const { search } = useLocation();
  const [finish, { isLoading }] = useFinishScreeningMutation();
  return (
    <Group justify="space-between" mt="xs">
      <SaveNote state={state} />
      <Group gap="xs">
        <Allowed least="assistant">
          {visit && !visit.finished ? (
            <Button
              variant="light"
              loading={isLoading}
              onClick={() => void finish({ screeningId: visit.id, version: visit.version })}
            >
              Close the visit
            </Button>
          ) : null}
        </Allowed>
        <Allowed least="clinician">
          <Button component="a" variant="subtle" href={`/api/v1/screenings.csv?athlete=${athlete.id}`}>
            Export CSV
          </Button>
        </Allowed>
        {visit ? (
          <Button component={Link} to={{ pathname: `/athletes/${athlete.id}/ridge`, search }}>
            See the ridge
          </Button>
        ) : null}
      </Group>
    </Group>
  );
}

/** The tests to choose from: the region's, or the proposed visit's in its order. */
function useTests(scope: BatteryScope, safety: SafetyState): readonly Test[] {
  const reference = useReference();
  const { case: input, region } = useWorkspace();
  if (scope.scope === 'region') return testsOfRegion(reference, input, safety, region);
  return scope.battery.tests.flatMap(({ test: id }) => reference.tests.get(id) ?? []);
}

/** What stands in the way of testing today, or null: a stop sign, topics not answered yet, "anything new?" not asked. */
function useObstacle(scope: BatteryScope, none: boolean) {
  const reference = useReference();
  const { region, report } = useWorkspace();
  const regions = scope.scope === 'battery' ? scope.regions : [region];
  const gate = useGate(regions);
  const may = useMay(); // who only reads is not asked
  const [topic, setTopic] = useState<string | null>(null);
  const blocked = report.blocked.find(
    (b) => b.level !== 'P' && (b.region === 'all' || (scope.scope === 'region' && b.region === region)),
  );
  const due = gate.due.filter((one) => one.region === null || regions.includes(one.region));
  if (!blocked && may('assistant') && (due.length > 0 || topic !== null)) {
    const only = topic ? [topic] : due.map((one) => one.id);
    return <GatePanel key={topic ?? 'due'} regions={regions} only={only} onDone={() => setTopic(null)} />;
  }
  if (!blocked && may('assistant') && gate.visitDue) return <VisitGate onTopic={setTopic} />;
  if (blocked || (none && scope.scope === 'region')) {
    return (
      <Alert color="red" title={`No tests for ${nameOf(reference, region).toLowerCase()} today`}>
        {blocked?.action ??
          'After an operation only the tests that the treating clinician ticked are shown; none is ticked.'}
      </Alert>
    );
  }
  return null;
}

/** Screen: tests at the left, entry in the middle, how it is done at the right. */
export function ScreenPage() {
  const reference = useReference();
  const { athlete, case: input, on, region } = useWorkspace();
  const safety = useMemo(() => safetyState(reference, input.athlete, today()), [reference, input]);
  const { ready, visit, earlier } = useVisits();
  const scope = useBattery();
  const tests = useTests(scope, safety);
  const [picked, setPicked] = useState<string | null>(null);
  const [helped, setHelped] = useState(0);
  const step = useRef<HTMLDivElement>(null);
  const [taken, setTaken] = useState(0);
  const { type, save, state, conflicts, sender } = useResultSaver({
    athleteId: athlete.id,
    date: on,
    screeningId: visit?.id ?? null,
  });
  const active = tests.find((test) => test.id === picked) ?? firstOpen(tests, visit, safety);
  const obstacle = useObstacle(scope, tests.length === 0);
  if (obstacle) {
    return (
      <div className={classes.page}>
        {scope.scope === 'battery' ? (
          <Group mb={6}>
            <Button size="xs" variant="light" onClick={() => scope.setScope('region')}>
              Only {nameOf(reference, region).toLowerCase()} instead
            </Button>
          </Group>
        ) : null}
        {obstacle}
      </div>
    );
  }
  // At once, not a frame later: keys typed on must find the field of the next test, never the one before.
  const pick = (id: string) => {
    flushSync(() => setPicked(id));
    step.current?.querySelector<HTMLElement>('[data-entry] [data-field]')?.focus();
  };
  const next = () => {
    const following = active && tests[tests.indexOf(active) + 1];
    if (following) pick(following.id);
  };
  return (
    <div className={classes.page} ref={step}>
      <Group justify="space-between" align="baseline" mb={6}>
        <Title order={2} size={20}>
          {scope.scope === 'battery' ? 'Proposed visit' : nameOf(reference, region)}, visit of {dayText(on)}
          {on > today() ? ' (ahead of today)' : ''}
        </Title>
        <Text size="sm" c="var(--muted)" className={classes.keys}>
          type, <kbd>Enter</kbd>, next field · <kbd>S</kbd> other side · <kbd>H</kbd> how to · <kbd>?</kbd>{' '}
          keys
        </Text>
      </Group>
      <Suggestion reference={reference} />
      <div className={classes.columns}>
        <TestList tests={tests} active={active?.id ?? ''} visit={visit} scope={scope} onPick={pick} />
        <div className={classes.middle} data-entry>
          <Conflicts conflicts={conflicts} sender={sender} onTaken={() => setTaken((n) => n + 1)} />
          {ready && active ? (
            <Locked least="assistant">
              <TestEntry
                key={`${active.id}/${on}/${taken}`}
                athleteId={athlete.id}
                date={on}
                test={active}
                sides={sidesOfTest(active).filter((side) => testAllowed(safety.gates, active, side))}
                visit={visit}
                earlier={earlier}
                onSave={(...result) => {
                  setPicked(active.id); // results coming in do not move on by themselves
                  save(...result);
                }}
                onType={type}
                onNext={next}
                onHelp={() => setHelped((n) => n + 1)}
              />
            </Locked>
          ) : null}
          <FinishBar visit={visit} state={state} />
        </div>
        <div className={classes.help}>
          {active ? <HowTo test={active} called={helped} /> : null}
          <TryOut key={region} />
        </div>
      </div>
    </div>
  );
}
