import { Button, Group, Loader, Text } from '@mantine/core';
import type { BuildReport, RequestChange } from '@yonder/core/builder';
import { duration, infeasibleText, nameOf, percent, withSide } from '@yonder/core/words';
import { lazy, Suspense, useState } from 'react';
import { useReference } from '../../app/reference.tsx';
import { compute } from '../../workers/client.ts';
import type { Asked, Calls } from '../../workers/protocol.ts';
import { draftOf } from './draftOf.ts';
import type { NewDraft } from './draftOf.ts';
import classes from './Routine.module.css';
import { useEdit } from './useEdit.ts';

const CurveChart = lazy(() => import('./CurveChart.tsx').then((m) => ({ default: m.CurveChart })));

interface Props {
  /** The record and what was asked for. */
  asked: Asked;
}

type Answer = Calls['whatIf']['answer'];

function drillsOf(report: BuildReport): string[] {
  return report.routine?.items.map((item) => item.drill) ?? [];
}

function gainText({ gain, report }: Answer): string {
  if (gain === null) return report.routine ? 'a routine fits then' : 'no routine fits then';
  if (Math.abs(gain) < 0.005) return 'changes next to nothing';
  return gain > 0 ? `${percent(gain)} more benefit` : `${percent(-gain)} less benefit`;
}

function Outcome({
  label,
  answer,
  onTake,
}: {
  label: string;
  answer: Answer;
  onTake: (draft: NewDraft) => void;
}) {
  const reference = useReference();
  const before = drillsOf(answer.now);
  const after = drillsOf(answer.report);
  const names = (ids: readonly string[]) => ids.map((id) => nameOf(reference, id).toLowerCase()).join(', ');
  const added = after.filter((id) => !before.includes(id));
  const gone = before.filter((id) => !after.includes(id));
  // Nothing to take when nothing would change.
  const changed = added.length + gone.length > 0 || Math.abs(answer.gain ?? 0) >= 0.005;
  const draft = changed ? draftOf(answer.report, answer.request) : null;
  return (
    <div className={classes.outcome} role="status">
      <Text fw={650} size="sm">
        {label}: {gainText(answer)}
      </Text>
      {answer.report.infeasible?.map((clash) => (
        <Text size="sm" key={clash.rules.join() + clash.about.join()}>
          {infeasibleText(reference, clash)}
        </Text>
      ))}
      {added.length > 0 ? <Text size="sm">In: {names(added)}.</Text> : null}
      {gone.length > 0 ? <Text size="sm">Out: {names(gone)}.</Text> : null}
      {answer.report.unserved.map((u) => (
        <Text size="sm" key={`${u.restriction}/${u.side}`}>
          Not served then: {withSide(nameOf(reference, u.restriction).toLowerCase(), u.side)}.
        </Text>
      ))}
      {draft ? (
        <Button size="compact-xs" variant="light" mt={4} onClick={() => onTake(draft)}>
          Take this routine ({duration(answer.report.routine?.totalSeconds ?? 0)})
        </Button>
      ) : null}
    </div>
  );
}

const BANDS = ['long-band', 'mini-band'];

/** What a few minutes more, a band, or nothing on the floor would change; and where more time stops paying. */
export function WhatIf({ asked }: Props) {
  const { subject, request } = asked;
  const edit = useEdit();
  const [given, setGiven] = useState<{
    of: Asked;
    label: string;
    answer: Answer | 'asking' | 'failed';
  } | null>(null);
  // An answer for an input that has changed since is no answer.
  const state = given?.of === asked ? given : null;
  const ask = (label: string, change: RequestChange) => {
    setGiven({ of: asked, label, answer: 'asking' });
    compute.call('whatIf', subject, { request, change }).then(
      (answer) => setGiven({ of: asked, label, answer }),
      () => setGiven({ of: asked, label, answer: 'failed' }),
    );
  };
  const { kit } = request;
  const band = BANDS.find((word) => !kit.includes(word));
  const asks: [string, RequestChange][] = [
    ['3 minutes more', { minutes: 3 }],
    ['3 minutes less', { minutes: -3 }],
    ...(band ? ([[`a ${band.replaceAll('-', ' ')}`, { addKit: [band] }]] as [string, RequestChange][]) : []),
    ['nothing on the floor', { noFloor: true }],
    ...(kit.length > 0 ? ([['no kit at all', { removeKit: kit }]] as [string, RequestChange][]) : []),
  ];
  return (
    <>
      <Text size="sm" fw={650} mb={4}>
        What if there were…
      </Text>
      <Group gap={5}>
        {asks.map(([label, change]) => (
          <Button key={label} size="compact-xs" variant="light" onClick={() => ask(label, change)}>
            {label}
          </Button>
        ))}
      </Group>
      {state?.answer === 'asking' ? <Loader size={16} mt={8} aria-label="Building" /> : null}
      {state?.answer === 'failed' ? <Text size="sm">It could not be worked out. Try again.</Text> : null}
      {state && typeof state.answer === 'object' ? (
        <Outcome label={state.label} answer={state.answer} onTake={edit.build} />
      ) : null}
      <Text size="sm" fw={650} mt={12} mb={2}>
        Benefit against minutes
      </Text>
      <Suspense fallback={<Loader size={16} aria-label="Loading the chart" />}>
        <CurveChart asked={asked} />
      </Suspense>
    </>
  );
}
