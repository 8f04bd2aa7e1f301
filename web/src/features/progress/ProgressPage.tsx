import { Alert, Button, Group, Radio, Select, Text, TextInput, Title } from '@mantine/core';
import type { RoutineItem } from '@yonder/core/domain';
import { applyVerdicts, decideProgress, isFirm, waitingItems } from '@yonder/core/progress';
import type { Decision, Verdict } from '@yonder/core/progress';
import { isLine } from '@yonder/core/reference';
import {
  amountText,
  DECISION_LABEL,
  itemChange,
  nameOf,
  reasonText,
  setupText,
  withSide,
} from '@yonder/core/words';
import { useMemo } from 'react';
import { Link, useLocation } from 'react-router';
import { Allowed, Locked } from '../../app/Allowed.tsx';
import { Refusal } from '../../components/Refusal.tsx';
import { RestoredNote } from '../../app/kept/RestoredNote.tsx';
import { useKeptState } from '../../app/kept/useKept.ts';
import { useReference } from '../../app/reference.tsx';
import { dayText } from '../../app/today.ts';
import { SideMark } from '../../components/SideMark.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { Occasions } from '../routine/Occasions.tsx';
import { useDecideMutation } from '../routine/routineEndpoints.ts';
import { NextDay } from './NextDay.tsx';
import { NextVersion } from './NextVersion.tsx';
import classes from './Progress.module.css';

/** What the practitioner made of one decision so far; no verdict until one is given. */
interface Choice {
  /** The decision it was said of: of another it says nothing. */
  readonly of: Decision['decision'];
  readonly verdict: 'accepted' | 'overruled' | null;
  readonly instead: 'keep' | 'ease' | 'remove';
  readonly reason: string;
}
type Choices = Readonly<Record<string, Choice>>;

const NO_CHOICES: Choices = {};

/** A firm proposal is offered as the answer; where the evidence is weak nothing is preset. */
const preset = (decision: Decision): Choice => ({
  of: decision.decision,
  verdict: isFirm(decision) ? 'accepted' : null,
  instead: 'keep',
  reason: '',
});

const isOpen = ({ verdict, reason }: Choice): boolean =>
  verdict === null || (verdict === 'overruled' && reason.trim().length < 3);

interface CardProps {
  /** What the rules propose, and which fired. */
  decision: Decision;
  /** The item as it is in the version in force. */
  before: RoutineItem;
  /** What the practitioner made of it so far. */
  choice: Choice;
  /** Another choice. */
  onChange: (choice: Choice) => void;
}

function NextText({ decision, before }: Pick<CardProps, 'decision' | 'before'>) {
  const reference = useReference();
  if (!decision.next) return <>leave it out</>;
  const change = itemChange(reference, before, decision.next);
  if (change) return <b>{change}</b>;
  const drill = reference.drills.get(before.drill);
  return (
    <>
      stays {amountText(before)}
      {drill && setupText(drill, before) ? `, ${setupText(drill, before)}` : ''}
    </>
  );
}

function DecisionCard({ decision, before, choice, onChange }: CardProps) {
  const reference = useReference();
  const name = nameOf(reference, decision.drill);
  const missing = choice.verdict === 'overruled' && choice.reason.trim().length < 3;
  return (
    <li className={`card ${classes.card}`} data-kind={decision.decision}>
      <div className={classes.cardHead}>
        <SideMark side={decision.side} state="short" />
        <Title order={3} size={16}>
          {withSide(name, decision.side === 'both' ? 'central' : decision.side)}
        </Title>
        <span className={classes.kind}>{DECISION_LABEL[decision.decision]}</span>
        <span className={classes.next}>
          <NextText decision={decision} before={before} />
        </span>
      </div>
      <ul className={classes.reasons}>
        {decision.reasons.map((reason) => {
          const text = reasonText(reference, reason);
          return <li key={text}>{text}</li>;
        })}
      </ul>
      <Group gap="md" role="radiogroup" aria-label={`Verdict on ${name}`}>
        {(['accepted', 'overruled'] as const).map((verdict) => (
          <Radio
            key={verdict}
            size="sm"
            name={`verdict-${decision.drill}`}
            label={verdict === 'accepted' ? 'Accept' : 'Overrule'}
            checked={choice.verdict === verdict}
            onChange={() => onChange({ ...choice, verdict })}
          />
        ))}
        {choice.verdict === 'overruled' ? (
          <>
            <Select
              size="xs"
              w={140}
              aria-label={`Instead, for ${name}`}
              allowDeselect={false}
              data={[
                { value: 'keep', label: 'keep as it is' },
                { value: 'ease', label: 'one step easier' },
                { value: 'remove', label: 'leave it out' },
              ]}
              value={choice.instead}
              onChange={(instead) =>
                onChange({ ...choice, instead: (instead ?? 'keep') as Choice['instead'] })
              }
            />
            <TextInput
              size="xs"
              w={240}
              aria-label={`Reason for overruling ${name}`}
              placeholder="Why?"
              value={choice.reason}
              error={missing ? 'say why' : null}
              onChange={(e) => onChange({ ...choice, reason: e.currentTarget.value })}
            />
          </>
        ) : null}
      </Group>
    </li>
  );
}

/** The verdicts given so far, by place. */
function verdictsOf(choices: readonly Choice[]): Verdict[] {
  return choices.flatMap((choice, index): Verdict[] => {
    const { verdict, instead, reason } = choice;
    if (isOpen(choice) || verdict === null) return [];
    return [verdict === 'accepted' ? { index, verdict } : { index, verdict, instead, reason }];
  });
}

/** Progress: a decision per drill with the rule that fired; accepted or overruled, they make the next version. */
export function ProgressPage() {
  const reference = useReference();
  const { athlete, assessment, on, routineId } = useWorkspace();
  const { search } = useLocation();
  const decisions = useMemo(() => decideProgress(assessment).decisions, [assessment]);
  const typed = useKeptState<Choices>(
    `verdicts/${athlete.id}/${routineId ?? ''}`,
    'What should happen to each drill',
    NO_CHOICES,
  );
  const [decide, { isLoading, error, data: decided }] = useDecideMutation();
  const items = assessment.standing.routine?.items ?? [];
  if (!routineId || items.length === 0) {
    return (
      <>
        <Occasions more={false} />
        <Text className={`card ${classes.empty}`}>
          No routine is in force as of {dayText(on)}.{' '}
          <Link to={{ pathname: '../routine', search }} relative="path">
            Build and issue one.
          </Link>
        </Text>
      </>
    );
  }
  const all = decisions.map((decision, index) => {
    const said = typed.value[items[index]?.id ?? ''];
    return said?.of === decision.decision ? said : preset(decision);
  });
  const open = all.filter(isOpen).length;
  const isDrill = (index: number) => !isLine(items[index]?.drill ?? '');
  const verdicts = verdictsOf(all).filter(({ index }) => isDrill(index));
  const drills = items.filter((_, index) => isDrill(index)).length;
  const waiting = new Set(waitingItems(assessment.standing, decisions));
  const send = () => {
    const body = {
      on,
      routineId,
      verdicts: verdicts.map(({ index, ...verdict }) => {
        const { decision = 'keep', next = null } = decisions[index] ?? {};
        return { item: items[index]?.id ?? '', shown: { decision, next }, ...verdict };
      }),
    };
    decide({ athleteId: athlete.id, body })
      .unwrap()
      .then(typed.discard, () => undefined); // shown below
  };
  return (
    <div className={classes.page}>
      <div className={classes.main}>
        <Occasions more={false} />
        <Title order={2} size={20}>
          What should happen to each drill
        </Title>
        <RestoredNote {...typed} />
        <Text size="sm" c="var(--muted)">
          {waiting.size === 0
            ? 'Nothing is waiting: nobody trained since the last decisions.'
            : `${waiting.size} of ${drills} wait for your word. Where the evidence is weak nothing is preset.`}
        </Text>
        {decided ? (
          <Alert
            color="teal"
            role="status"
            title={
              decided.routine ? `Version ${decided.routine.number} is issued` : 'Recorded; nothing changes'
            }
          >
            {decided.routine?.changes.map((change, i) => (
              <div key={i}>{reasonText(reference, change)}</div>
            ))}
          </Alert>
        ) : null}
        <Locked least="clinician">
          <ol className={classes.list} aria-label="Decisions">
            {decisions.map((decision, index) => {
              const before = items[index];
              if (!before || !isDrill(index)) return null;
              return (
                <DecisionCard
                  key={before.id ?? `${decision.drill}/${decision.side}`}
                  decision={decision}
                  before={before}
                  choice={all[index] ?? preset(decision)}
                  onChange={(choice) => typed.set({ ...typed.value, [before.id ?? '']: choice })}
                />
              );
            })}
          </ol>
        </Locked>
        <NextVersion before={items} after={applyVerdicts(assessment, decisions, verdicts)} open={open} />
        <Refusal error={error} />
        <Group justify="flex-end" className={classes.footer}>
          <Text size="sm" c="var(--muted)">
            Decided by you as of {dayText(on)}; the practitioner decides, the rules only propose.
          </Text>
          <Allowed least="clinician">
            <Button loading={isLoading} disabled={open > 0} onClick={send}>
              {open > 0 ? `${open} to answer` : `Record ${drills} decisions`}
            </Button>
          </Allowed>
        </Group>
      </div>
      <NextDay />
    </div>
  );
}
