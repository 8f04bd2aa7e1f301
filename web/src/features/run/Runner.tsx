import { Alert, Button, Group, Stack, Text } from '@mantine/core';
import { Dialog } from '../../components/Dialog.tsx';
import { useHotkeys } from '@mantine/hooks';
import {
  IconPlayerPause,
  IconPlayerPlay,
  IconPlayerSkipForward,
  IconPlayerTrackNext,
  IconPlayerTrackPrev,
} from '@tabler/icons-react';
import type { Swap } from '@yonder/core/builder';
import type { RoutineRow, SessionWithEvents } from '@yonder/core/contracts';
import { stopAbove } from '@yonder/core/takeover';
import { nameOf, percent } from '@yonder/core/words';
import { withSchools } from '@yonder/core/assess';
import { useEffect, useEffectEvent, useMemo, useState } from 'react';
import { useMay } from '../../app/may.ts';
import { useReference } from '../../app/reference.tsx';
import { timeText } from '../../app/today.ts';
import { PrecautionStrip } from '../../components/PrecautionStrip.tsx';
import { compute } from '../../workers/client.ts';
import { LevelSeen } from '../athletes/LevelSeen.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { Afterwards } from './Afterwards.tsx';
import classes from './Run.module.css';
import { scoredBefore } from './Provoking.tsx';
import type { Scores } from './Provoking.tsx';
import { Stage } from './Stage.tsx';
import { useDoor } from './useDoor.ts';
import { useRun } from './useRun.ts';
import type { Run } from './useRun.ts';

function PainModal({ run, stopAbove, onClose }: { run: Run; stopAbove: number; onClose: () => void }) {
  return (
    <Dialog onClose={onClose} title="How much does it hurt, 0 to 10?">
      <Group gap={8}>
        {Array.from({ length: 11 }, (_, pain) => (
          <Button
            key={pain}
            w={54}
            h={48}
            variant={pain > stopAbove ? 'filled' : 'outline'}
            color={pain > stopAbove ? 'copper' : 'teal'}
            onClick={() => {
              run.reportPain(pain, stopAbove);
              onClose();
            }}
          >
            {pain}
          </Button>
        ))}
      </Group>
      <Text size="sm" mt="sm">
        Above {stopAbove} this drill stops for today.
      </Text>
    </Dialog>
  );
}

function SwapModal({
  run,
  schools,
  onClose,
}: {
  run: Run;
  schools: RoutineRow['schools'];
  onClose: () => void;
}) {
  const reference = useReference();
  const { assessment, case: input, subject } = useWorkspace();
  const index = run.segments[run.position.segment]?.item ?? 0;
  const [swaps, setSwaps] = useState<readonly Swap[] | null>(null);
  const [asked, setAsked] = useState(false);
  if (!asked) {
    setAsked(true);
    const mode = assessment.standing.routine?.mode ?? 'prepare';
    const request = { ...input.request, mode, schools };
    compute
      .call('swaps', subject, { request, items: run.items, index, reason: null })
      .then(setSwaps, () => setSwaps([]));
  }
  return (
    <Dialog onClose={onClose} title={`Instead of ${nameOf(reference, run.items[index]?.drill ?? '')}`}>
      <Stack gap={6}>
        {swaps === null ? <Text role="status">Looking…</Text> : null}
        {swaps?.length === 0 ? (
          <Text>Nothing else does this job with today’s kit and precautions. Skip it.</Text>
        ) : null}
        {swaps?.slice(0, 6).map((swap) => (
          <Button
            key={swap.drill}
            variant="default"
            justify="space-between"
            onClick={() => {
              run.swap(index, swap.item);
              onClose();
            }}
            rightSection={`keeps ${percent(Math.min(1, swap.keeps))}`}
          >
            {nameOf(reference, swap.drill)}
          </Button>
        ))}
      </Stack>
    </Dialog>
  );
}

function Controls({ run, onHurt, onSwap }: { run: Run; onHurt: () => void; onSwap: () => void }) {
  const toggle = run.playing ? run.pause : run.play;
  useHotkeys([
    ['space', toggle],
    ['ArrowRight', run.skip],
    ['shift+ArrowRight', run.skipDrill],
    ['ArrowLeft', run.back],
  ]);
  return (
    <Group justify="center" gap="sm" className={classes.controls}>
      <Button size="lg" variant="default" leftSection={<IconPlayerTrackPrev />} onClick={run.back}>
        Back
      </Button>
      <Button size="xl" leftSection={run.playing ? <IconPlayerPause /> : <IconPlayerPlay />} onClick={toggle}>
        {run.playing ? 'Pause' : 'Go'}
      </Button>
      <Button size="lg" variant="default" leftSection={<IconPlayerSkipForward />} onClick={run.skip}>
        Skip
      </Button>
      <Button size="lg" variant="default" leftSection={<IconPlayerTrackNext />} onClick={run.skipDrill}>
        Skip drill
      </Button>
      <Button size="lg" variant="default" onClick={onSwap}>
        Swap drill
      </Button>
      <Button size="lg" color="copper" variant="outline" onClick={onHurt}>
        It hurts
      </Button>
    </Group>
  );
}

/** A level that was opened by a rule and that nobody saw yet: the first time it is done, somebody says so. */
function ToConfirm({ run, routine, onTooHard }: { run: Run; routine: RoutineRow; onTooHard: () => void }) {
  const reference = useReference();
  const may = useMay();
  const segment = run.segments[run.position.segment];
  const item = segment && run.items[segment.item];
  const issued = segment && routine.items.find(({ id }) => id === run.ids[segment.item]);
  const drill = item && reference.drills.get(item.drill);
  const reasons = routine.reasons.find((one) => one.item === issued?.id)?.reasons ?? [];
  const unseen = reasons.some((reason) => 'confirm' in reason && reason.confirm);
  if (!may('clinician') || !drill || !unseen || issued?.drill !== item.drill) return null;
  return (
    <div className={classes.confirm}>
      <Text size="sm">Nobody has seen this level yet. How is it?</Text>
      <LevelSeen
        key={drill.id}
        drill={drill}
        side={item.side}
        offers={['fine', 'too-hard']}
        onTooHard={onTooHard}
      />
    </div>
  );
}

/** The full-screen runner of a session; a reload goes on where it was. */
export function Runner({
  session,
  routine,
  answers,
  scores,
  onLeave,
}: {
  session: SessionWithEvents;
  routine: RoutineRow;
  /** What was answered before the start, by session check. */
  answers: Readonly<Record<string, boolean>>;
  /** What the movements that hurt were scored before the start. */
  scores: Scores;
  onLeave: () => void;
}) {
  const { assessment: ofAthlete, case: input, on, report } = useWorkspace();
  const assessment = useMemo(() => withSchools(ofAthlete, routine.schools), [ofAthlete, routine.schools]);
  const run = useRun(session, session.items ?? routine.items);
  const stopped = useDoor(session.id, run);
  const [open, setOpen] = useState<'pain' | 'swap' | null>(null);
  const begin = useEffectEvent(() => {
    // What the server left out stands there before anything is said.
    if (session.events.some(({ type }) => type !== 'left-out') || run.begun) return;
    const said = Object.entries(answers).map(([check, holds]) => ({
      type: 'answered' as const,
      check,
      holds,
    }));
    run.say(...said, ...scoredBefore(assessment.safety.dayRules, scores), { type: 'started' });
  });
  useEffect(() => begin(), []);
  const stop = stopAbove(assessment.painLimits.stop, run.items);
  return (
    <div className={classes.runner} role="dialog" aria-modal="true" aria-label="Runner">
      <div className={classes.top}>
        <PrecautionStrip
          athlete={input.athlete}
          on={on}
          blocked={report.blocked}
          dayRules={assessment.safety.dayRules}
        />
        <Text className={classes.limit}>
          {stop > 0 ? `Stop a drill if it hurts more than ${stop}/10.` : 'Stop a drill if it hurts at all.'}
          {run.items.flatMap(({ caution, words = '' }) =>
            caution ? ` ${words.replace(/[.!\s]+$/, '')}.` : [],
          )}
        </Text>
        <Group gap="xs">
          {run.finished ? null : (
            <Button variant="default" size="xs" onClick={run.end}>
              End here
            </Button>
          )}
          <Button
            variant="subtle"
            size="xs"
            onClick={() => {
              run.pause();
              void run.settled().then(onLeave);
            }}
          >
            Leave, go on later
          </Button>
        </Group>
      </div>
      {stopped.blocked === null && stopped.items.length > 0 && !run.finished ? (
        <Alert color="copper" role="alert" p={6} title="Left out from now on">
          {stopped.items.map((why) => (
            <div key={why}>{why}</div>
          ))}
        </Alert>
      ) : null}
      {stopped.unheardSince !== null ? (
        <Alert color="copper" role="alert" p={6}>
          No answer since {timeText(stopped.unheardSince)}: a sign, a precaution or a pain noted elsewhere
          since then does not stop this run by itself. Ask before going on.
        </Alert>
      ) : null}
      {run.problem && !run.finished ? (
        <Alert color="copper" role="alert" p={6}>
          {run.problem}
        </Alert>
      ) : null}
      {run.finished ? (
        <Afterwards run={run} stopAbove={stop} rules={assessment.safety.dayRules} onStored={onLeave} />
      ) : stopped.blocked !== null ? (
        <Alert color="red" role="alert" title="Stop: this run does not go on">
          <Text>{stopped.blocked}</Text>
          <Button mt="sm" color="red" onClick={run.end}>
            End the session
          </Button>
        </Alert>
      ) : (
        <>
          <Stage run={run} />
          <ToConfirm run={run} routine={routine} onTooHard={() => setOpen('swap')} />
          <Controls run={run} onHurt={() => setOpen('pain')} onSwap={() => setOpen('swap')} />
        </>
      )}
      {open === 'pain' ? <PainModal run={run} stopAbove={stop} onClose={() => setOpen(null)} /> : null}
      {open === 'swap' ? (
        <SwapModal run={run} schools={routine.schools} onClose={() => setOpen(null)} />
      ) : null}
    </div>
  );
}
