import { Button, Loader, Select, Text } from '@mantine/core';
import type { WhyNot as Answer } from '@yonder/core/builder';
import type { Reference } from '@yonder/core/reference';
import { binds } from '@yonder/core/safety';
import { costText, dayRuleText, nameOf, number, ruleText } from '@yonder/core/words';
import { useEffect, useMemo, useState } from 'react';
import { useReference } from '../../app/reference.tsx';
import { useAppDispatch } from '../../app/store.ts';
import { compute } from '../../workers/client.ts';
import type { Asked } from '../../workers/protocol.ts';
import { requestChanged } from './draftSlice.ts';
import { LevelSeen } from '../athletes/LevelSeen.tsx';
import { LiftRule } from '../athletes/LiftRule.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import classes from './Routine.module.css';

interface Props {
  /** The record and what was asked for. */
  asked: Asked;
}

function displacesText(reference: Reference, answer: Answer): string | null {
  if (answer.kind !== 'costs' || !answer.displaces) return null;
  const { out, changed } = answer.displaces;
  const names = (ids: readonly string[]) => ids.map((id) => nameOf(reference, id).toLowerCase()).join(', ');
  const parts = [
    ...(out.length > 0 ? [`takes the place of ${names(out)}`] : []),
    ...(changed.length > 0 ? [`changes the dose of ${names(changed)}`] : []),
  ];
  return parts.length > 0 ? `It ${parts.join(' and ')}.` : 'It displaces nothing.';
}

/** What forbids a drill, what it would cost, and whether that is proven. */
function answerText(reference: Reference, answer: Answer): string {
  switch (answer.kind) {
    case 'in-plan':
      return 'In the best routine already.';
    case 'forbidden':
      return `Ruled out: ${ruleText(reference, answer.rule, answer.about)}.`;
    case 'clashes':
      return 'Does not fit beside what is pinned.';
    case 'costs':
      return `It ${costText(answer)}.`;
  }
}

function Exact({ asked: { subject, request }, drill }: Props & { drill: string }) {
  const reference = useReference();
  const [state, setState] = useState<{ why: Answer; minutes: number | null } | 'asking' | 'failed' | null>(
    null,
  );
  if (state === null || state === 'failed')
    return (
      <Button
        size="compact-xs"
        variant="subtle"
        onClick={() => {
          setState('asking');
          compute.call('whyNotExact', subject, { request, drill }).then(setState, () => setState('failed'));
        }}
      >
        {state === 'failed' ? 'Try again' : 'Exactly?'}
      </Button>
    );
  if (state === 'asking') return <Loader size={14} aria-label="Working it out exactly" />;
  return (
    <Text size="sm" role="status">
      {state.why.kind === 'costs' &&
      state.why.atMost !== null &&
      state.why.atMost >= 0.0005 &&
      state.why.atMost < 1
        ? `Proven: costs ${number(state.why.atMost * 100, 1)} %. `
        : `Proven: ${answerText(reference, state.why).toLowerCase()} `}
      {displacesText(reference, state.why)}{' '}
      {state.minutes === null
        ? ''
        : `With ${state.minutes} more ${state.minutes === 1 ? 'minute' : 'minutes'} it comes in by itself.`}
    </Text>
  );
}

/** A level that is not open yet, or was said to be too hard, is opened by somebody who saw it done well. */
function Opened({ drill: id }: { drill: string }) {
  const drill = useReference().drills.get(id);
  return drill ? <LevelSeen drill={drill} side="both" offers={['fine']} /> : null;
}

/** The rules of the day that keep a drill out, and how they end: lifted with a reason, or when it hurts less. */
function HurtsToday({ region }: { region: string }) {
  const reference = useReference();
  const { assessment } = useWorkspace();
  return assessment.safety.dayRules
    .filter((rule) => rule.region === region && binds(rule))
    .map((rule) => (
      <span key={rule.side} className={classes.hurts}>
        {dayRuleText(reference, rule)} <LiftRule rule={rule} />
      </span>
    ));
}

/** Any drill can be asked why it is not in: the rule, or what it would displace and cost. */
export function WhyNot({ asked }: Props) {
  const { subject, request } = asked;
  const reference = useReference();
  const dispatch = useAppDispatch();
  const [picked, setPicked] = useState<string | null>(null);
  const [answers, setAnswers] = useState<Readonly<Record<string, Answer>>>({});
  const drills = useMemo(() => (picked ? [picked] : []), [picked]);
  useEffect(() => {
    let stale = false;
    const take = (answer: Readonly<Record<string, Answer>>) => {
      if (!stale) setAnswers(answer);
    };
    compute.call('whyNot', subject, { request, drills }, { onInterim: take }).then(take, () => take({}));
    return () => {
      stale = true;
    };
  }, [subject, request, drills]);
  return (
    <>
      <Select
        size="xs"
        label="Why is this drill not in?"
        placeholder="any drill"
        searchable
        clearable
        limit={40}
        nothingFoundMessage="No drill of that name"
        data={reference.data.drills
          .filter((drill) => !drill.archived)
          .map((drill) => ({ value: drill.id, label: drill.name }))}
        value={picked}
        onChange={setPicked}
      />
      <ul className={classes.whyNot} aria-label="Why not">
        {Object.entries(answers).map(([drill, answer]) => {
          return (
            <li key={drill}>
              <b>{nameOf(reference, drill)}</b>
              <span>{answerText(reference, answer)}</span>
              <span className="muted">{displacesText(reference, answer)}</span>
              {answer.kind === 'forbidden' && answer.rule === 'level' ? <Opened drill={drill} /> : null}
              {answer.kind === 'forbidden' && answer.rule === 'day-rule' ? (
                <HurtsToday region={answer.about} />
              ) : null}
              {answer.kind === 'costs' ? (
                <span className={classes.whyNotTools}>
                  <Exact key={drill} asked={asked} drill={drill} />
                  <Button
                    size="compact-xs"
                    variant="subtle"
                    onClick={() =>
                      dispatch(
                        requestChanged({
                          pins: [...request.pins, drill],
                          bans: request.bans.filter((id) => id !== drill),
                        }),
                      )
                    }
                    disabled={request.pins.includes(drill)}
                  >
                    {request.pins.includes(drill) ? 'Pinned: choose again' : 'Pin it'}
                  </Button>
                </span>
              ) : null}
            </li>
          );
        })}
      </ul>
      <Text size="xs" c="var(--muted)">
        Measured against the best routine for these limits, in shares of its benefit.
      </Text>
    </>
  );
}
