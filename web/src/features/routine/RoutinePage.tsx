import { Alert, Button, Group, Text } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { notifications } from '@mantine/notifications';
import type { BuildReport, ItemExplanation } from '@yonder/core/builder';
import type { Draft, RoutineRow } from '@yonder/core/contracts';
import type { BuildRequest, Case } from '@yonder/core/domain';
import { routineSeconds } from '@yonder/core/dose';
import { duration, infeasibleText, nameOf, reasonText, withSide } from '@yonder/core/words';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { errorText } from '../../app/api.ts';
import { useReference } from '../../app/reference.tsx';
import { useAppDispatch, useAppSelector } from '../../app/store.ts';
import { WhyPanel } from '../../components/WhyPanel.tsx';
import { compute } from '../../workers/client.ts';
import type { Explained } from '../../workers/protocol.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { BuilderBar } from './BuilderBar.tsx';
import { built, opened, redone, requestChanged, undone } from './draftSlice.ts';
import { ItemTable } from './ItemTable.tsx';
import { ItemWhy } from './ItemWhy.tsx';
import classes from './Routine.module.css';
import { useDiscardDraftMutation, useIssueRoutineMutation, useRoutinesQuery } from './routineEndpoints.ts';
import { useBuilder } from './useBuilder.ts';
import { useDraft } from './useDraft.ts';
import { IssuedVersion } from './Versions.tsx';

function draftOf(report: BuildReport, request: BuildRequest): Draft | null {
  if (!report.routine) return null;
  const items = report.routine.items.map(({ seconds: _s, serves: _v, reasons: _r, ...item }) => item);
  return { request, structure: report.routine.structure, items };
}

/** Explanations of the items as they stand; worked out in the worker after every edit. */
function useExplained(input: Case, draft: Draft | null): Explained {
  const [explained, setExplained] = useState<Explained>({ items: [], uncovered: [] });
  const items = draft?.items;
  useEffect(() => {
    if (!items) return undefined;
    let stale = false;
    compute.call('explain', { case: input, items }).then(
      (answer) => {
        if (!stale) setExplained(answer);
      },
      () => undefined, // a cancelled build ends the worker; the next edit asks again
    );
    return () => {
      stale = true;
    };
  }, [input, items]);
  return explained;
}

function Problems({ report, explained }: { report: BuildReport | null; explained: Explained }) {
  const reference = useReference();
  const lines = [
    ...(report?.infeasible ?? []).map((clash) => infeasibleText(reference, clash)),
    ...explained.uncovered.map(
      (u) => `Not served: ${withSide(nameOf(reference, u.restriction).toLowerCase(), u.side)}.`,
    ),
    ...(report?.uncovered ?? []).map(
      (u) => `${nameOf(reference, u.restriction)}: ${reasonText(reference, u.why)}`,
    ),
    ...(report?.warnings ?? [])
      .filter((w) => w.rule !== 'phase-share' && w.rule !== 'handle-with-care')
      .map((w) => reasonText(reference, w)),
  ];
  if (lines.length === 0) return null;
  return (
    <ul className={classes.problems} aria-label="Worth knowing">
      {[...new Set(lines)].map((line) => (
        <li key={line}>{line}</li>
      ))}
    </ul>
  );
}

interface FooterProps {
  draft: Draft;
  minutes: number;
  nextNumber: number;
  problem: string | null;
}

function Footer({ draft, minutes, nextNumber, problem }: FooterProps) {
  const reference = useReference();
  const dispatch = useAppDispatch();
  const { athlete, on } = useWorkspace();
  const { past, future } = useAppSelector((state) => state.draft);
  const [issue, { isLoading, error }] = useIssueRoutineMutation();
  const [discard] = useDiscardDraftMutation();
  const seconds = routineSeconds(reference, draft.items);
  const over = seconds - minutes * 60;
  const send = () => {
    const { request, structure, items } = draft;
    issue({ athleteId: athlete.id, body: { on, mode: request.mode, structure, request, items } })
      .unwrap()
      .then(
        (row) => notifications.show({ message: `Version ${row.number} is issued.` }),
        () => undefined, // shown beside the button
      );
  };
  const throwAway = () => {
    dispatch(opened({ athleteId: athlete.id, draft: null }));
    void discard(athlete.id);
  };
  return (
    <div className={`card ${classes.footer}`}>
      <div className={classes.total} data-over={over > 0 || undefined}>
        <span data-testid="total">{duration(seconds)}</span>
        <span className={classes.totalNote}>
          {over > 0 ? `${duration(over)} over ${minutes} min` : `of ${minutes} min`}, {draft.items.length}{' '}
          drills
        </span>
      </div>
      <Group gap="xs">
        <Button variant="default" size="xs" disabled={past.length === 0} onClick={() => dispatch(undone())}>
          Undo
        </Button>
        <Button variant="default" size="xs" disabled={future.length === 0} onClick={() => dispatch(redone())}>
          Redo
        </Button>
        <Button variant="subtle" size="xs" color="gray" onClick={throwAway}>
          Discard
        </Button>
        <Button loading={isLoading} disabled={draft.items.length === 0} onClick={send}>
          Issue version {nextNumber}
        </Button>
      </Group>
      {error || problem ? (
        <Alert color="copper" role="alert" p={8} className={classes.wide}>
          {error ? errorText(error) : `Not kept: ${problem}`}
        </Alert>
      ) : null}
    </div>
  );
}

function useRequest(
  draft: Draft | null,
  input: Case,
): [BuildRequest, (change: Partial<BuildRequest>) => void] {
  const dispatch = useAppDispatch();
  const [own, setOwn] = useState<BuildRequest>(input.request);
  const change = (part: Partial<BuildRequest>) => {
    setOwn((current) => ({ ...current, ...part }));
    if (draft) dispatch(requestChanged(part));
  };
  return [draft?.request ?? own, change];
}

function copyOf(routine: RoutineRow, input: Case): Draft {
  const request = { ...input.request, mode: routine.mode };
  return { request, structure: routine.structure, items: routine.items };
}

/** Routine: built, explained, edited and issued; the version in force until then. */
export function RoutinePage() {
  const reference = useReference();
  const dispatch = useAppDispatch();
  const { athlete, case: input, report: findings } = useWorkspace();
  const { draft, ready, problem } = useDraft(athlete.id);
  const { data: routines } = useRoutinesQuery(athlete.id);
  const [request, changeRequest] = useRequest(draft, input);
  const [picked, setPicked] = useState<string | null>(null);
  const asked = useMemo(() => ({ ...input, request }), [input, request]);
  const explained = useExplained(asked, draft);
  const onBuilt = useCallback(
    (report: BuildReport) => {
      const made = draftOf(report, request);
      if (made) dispatch(built(made));
    },
    [dispatch, request],
  );
  const builder = useBuilder(onBuilt);
  useHotkeys([
    ['mod+Z', () => dispatch(undone())],
    ['mod+shift+Z', () => dispatch(redone())],
  ]);
  const report = builder.state.kind === 'done' ? builder.state.report : null;
  const newest = routines?.[0];
  const selected =
    draft?.items.find((item) => item.drill === picked)?.drill ?? draft?.items[0]?.drill ?? null;
  const blocked = findings.blocked.find((b) => b.region === 'all' && b.level !== 'P');
  if (blocked) {
    return (
      <Alert color="red" title="No routine while a stop-and-refer sign is open">
        {blocked.action}
      </Alert>
    );
  }
  const minutes =
    request.minutes ?? reference.structures.get(draft?.structure ?? '')?.minutes.default ?? athlete.minutes;
  const explanationOf = (drill: string): ItemExplanation | undefined =>
    explained.items.find((e) => e.drill === drill);
  return (
    <div className={classes.page}>
      <div className={classes.main}>
        <BuilderBar
          request={request}
          onChange={changeRequest}
          state={builder.state}
          onBuild={() => builder.build(asked)}
          onCancel={builder.cancel}
          again={draft !== null}
        />
        {draft ? (
          <>
            <section className={`card ${classes.sheet}`} aria-label="Routine being edited">
              <ItemTable draft={draft} explained={explained.items} selected={selected} onSelect={setPicked} />
              <Problems report={report} explained={explained} />
            </section>
            <Footer
              draft={draft}
              minutes={minutes}
              nextNumber={(newest?.number ?? 0) + 1}
              problem={problem}
            />
          </>
        ) : (
          <>
            <Problems report={report} explained={{ items: [], uncovered: [] }} />
            {ready && newest ? (
              routines?.map((routine) => (
                <IssuedVersion
                  key={routine.id}
                  routine={routine}
                  inForce={routine === newest}
                  onCopy={() => dispatch(built(copyOf(routine, input)))}
                />
              ))
            ) : (
              <Text className={`card ${classes.empty}`}>
                No routine yet. Set the minutes and the kit, then build: drills are chosen for what is short,
                in the minutes there are, and each says why it is in.
              </Text>
            )}
          </>
        )}
      </div>
      {draft && selected ? (
        <ItemWhy draft={draft} input={asked} drillId={selected} explanation={explanationOf(selected)} />
      ) : (
        <WhyPanel
          title="What the routine will answer"
          reasons={findings.findings
            .filter((f) => f.severity > 0)
            .slice(0, 6)
            .map(
              (f) =>
                `${withSide(nameOf(reference, f.restriction), f.side)}: priority ${f.priority.toFixed(2)}`,
            )}
        >
          {findings.capacities.length === 0 ? (
            <Text size="sm">Nothing screened: the routine will be general, from tasks and injuries.</Text>
          ) : null}
        </WhyPanel>
      )}
    </div>
  );
}
