import { Alert, Button, Group, Text, Title } from '@mantine/core';
import type { ResultRow, ScreeningRow } from '@yonder/core/contracts';
import { resultValue } from '@yonder/core/measure';
import type { Reference, Test } from '@yonder/core/reference';
import { safetyState } from '@yonder/core/safety';
import { decimalsOf, nameOf, number, reasonText, unitWord } from '@yonder/core/words';
import { useMemo, useRef, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { useReference } from '../../app/reference.tsx';
import { dayText, today } from '../../app/today.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { RedFlagGate } from '../story/RedFlagGate.tsx';
import { HowTo } from './HowTo.tsx';
import classes from './Screen.module.css';
import { useFinishScreeningMutation, useScreeningsQuery } from './screeningEndpoints.ts';
import { TestEntry } from './TestEntry.tsx';
import { askedByTask, sidesOf, testsOfRegion } from './testsOfRegion.ts';
import { useResultSaver } from './useResultSaver.ts';
import type { SaveState } from './useResultSaver.ts';

function valueText(test: Test, row: ResultRow | undefined): string {
  const value = row ? resultValue(test, row) : null;
  return value === null ? '–' : number(value, decimalsOf(test.unit));
}

function SaveNote({ state }: { state: SaveState }) {
  if (state.kind === 'failed') {
    return (
      <Alert color="copper" role="alert" p={8}>
        Not stored: {state.message}
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

interface ListProps {
  tests: readonly Test[];
  active: string;
  visit: ScreeningRow | null;
  onPick: (test: string) => void;
}

function TestList({ tests, active, visit, onPick }: ListProps) {
  const reference = useReference();
  const { case: input } = useWorkspace();
  return (
    <ol className={`card ${classes.list}`} aria-label="Tests of the region">
      {tests.map((test) => {
        const rows = sidesOf(test).map((side) =>
          visit?.results.find((r) => r.test === test.id && r.side === side),
        );
        return (
          <li key={test.id}>
            <button
              type="button"
              aria-current={test.id === active || undefined}
              onClick={() => onPick(test.id)}
            >
              <span className={classes.testName}>
                {test.name}
                {askedByTask(reference, input, test.id) ? <span className={classes.asked}>task</span> : null}
              </span>
              <span className={classes.values}>
                {rows.some(Boolean)
                  ? `${rows.map((row) => valueText(test, row)).join(' | ')} ${unitWord(test.unit)}`
                  : ''}
              </span>
            </button>
          </li>
        );
      })}
    </ol>
  );
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
        {visit && !visit.finished ? (
          <Button
            variant="light"
            loading={isLoading}
            onClick={() => void finish({ screeningId: visit.id, version: visit.version })}
          >
            Close the visit
          </Button>
        ) : null}
        {visit ? (
          <Button component={Link} to={{ pathname: `/athletes/${athlete.id}/ridge`, search }}>
            See the ridge
          </Button>
        ) : null}
      </Group>
    </Group>
  );
}

/** Screen: the region's tests at the left, entry in the middle, how it is done at the right. */
export function ScreenPage() {
  const reference = useReference();
  const { athlete, case: input, on, region, report } = useWorkspace();
  const { ready, visit, earlier } = useVisits();
  const safety = useMemo(() => safetyState(reference, input.athlete, today()), [reference, input]);
  const tests = testsOfRegion(reference, input, safety, region);
  const [picked, setPicked] = useState<string | null>(null);
  const [helped, setHelped] = useState(0);
  const step = useRef<HTMLDivElement>(null);
  const { save, state } = useResultSaver({ athleteId: athlete.id, date: on, screeningId: visit?.id ?? null });
  const active = tests.find((test) => test.id === picked) ?? tests[0];

  if (!athlete.asked.some((a) => a.region === region)) return <RedFlagGate key={region} region={region} />;
  const blocked = report.blocked.find((b) => b.level !== 'P' && (b.region === 'all' || b.region === region));
  if (blocked || !active) {
    return (
      <Alert color="red" title={`No tests for ${nameOf(reference, region).toLowerCase()} today`}>
        {blocked?.action ??
          'After an operation only the tests that the treating clinician ticked are shown; none is ticked.'}
      </Alert>
    );
  }
  const focusFirst = () =>
    requestAnimationFrame(() => step.current?.querySelector<HTMLInputElement>('table input')?.focus());
  const pick = (id: string) => {
    setPicked(id);
    focusFirst();
  };
  const next = () => {
    const following = tests[tests.indexOf(active) + 1];
    if (following) pick(following.id);
  };
  return (
    <div className={classes.page} ref={step}>
      <Group justify="space-between" align="baseline" mb={6}>
        <Title order={2} size={20}>
          {nameOf(reference, region)}, visit of {dayText(on)}
          {on > today() ? ' (ahead of today)' : ''}
        </Title>
        <Text size="sm" c="var(--muted)">
          type, <kbd>Enter</kbd>, next field · <kbd>S</kbd> other side · <kbd>?</kbd> how to
        </Text>
      </Group>
      <Suggestion reference={reference} />
      <div className={classes.columns}>
        <TestList tests={tests} active={active.id} visit={visit} onPick={pick} />
        <div className={classes.middle}>
          {ready ? (
            <TestEntry
              key={`${active.id}/${on}`}
              test={active}
              visit={visit}
              earlier={earlier}
              onSave={save}
              onNext={next}
              onHelp={() => setHelped((n) => n + 1)}
            />
          ) : null}
          <FinishBar visit={visit} state={state} />
        </div>
        <HowTo test={active} called={helped} />
      </div>
    </div>
  );
}
