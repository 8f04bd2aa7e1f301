import { Text } from '@mantine/core';
import { BUILDER } from '@yonder/core/builder';
import type { BuildReport } from '@yonder/core/builder';
import type { Draft } from '@yonder/core/contracts';
import type { Reason } from '@yonder/core/reasons';
import { duration, nameOf, optionLabel, READINESS_PART_LABEL, reasonText } from '@yonder/core/words';
import type { ReactNode } from 'react';
import { useReference } from '../../app/reference.tsx';
import { SideMark } from '../../components/SideMark.tsx';
import { LevelSeen } from '../athletes/LevelSeen.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { explanationOf } from './useExplained.ts';
import type { ExplainedItems } from './useExplained.ts';
import classes from './Routine.module.css';

interface Props {
  /** The routine being edited. */
  draft: Draft;
  /** What each drill serves and what none does; null while that is worked out. */
  explained: ExplainedItems | null;
  /** The last build; null when the routine was not built here. */
  report: BuildReport | null;
  /** A drill was pressed, by the id of its line. */
  onSelect: (id: string) => void;
}

/** Numbers of the drills at these places; a press shows one. */
function Places({
  places,
  draft,
  onSelect,
}: Pick<Props, 'draft' | 'onSelect'> & { places: readonly number[] }) {
  return places.map((place, i) => (
    <span key={place}>
      {i > 0 ? ', ' : ''}
      <button type="button" className={classes.link} onClick={() => onSelect(draft.items[place]?.id ?? '')}>
        {place + 1}
      </button>
    </span>
  ));
}

interface LineProps extends Pick<Props, 'draft' | 'onSelect'> {
  name: string;
  places: readonly number[];
  /** What stands before the places, and in their place where there are none. */
  by: string;
  none: string;
  because: Reason | null;
  /** What stands before it; else whether it is answered. */
  mark?: ReactNode;
}

/**
 * One thing that is asked for, with the drills that answer it, or why none does. Where the nearest drill only waits for
 * somebody to have seen it done, the press that says so stands beside it.
 */
function Line({ name, places, by, none, because, mark, draft, onSelect }: LineProps) {
  const reference = useReference();
  const open = places.length === 0;
  const locked = because?.rule === 'no-drill-allowed' && because.because === 'level' ? because.drill : '';
  const drill = reference.drills.get(locked);
  return (
    <li data-open={open || undefined}>
      {mark ?? <span aria-hidden>{open ? '○' : '●'}</span>}
      <div>
        {name}
        {because ? <span className={classes.why}>{reasonText(reference, because)}</span> : null}
        {drill ? <LevelSeen drill={drill} side="both" offers={['fine']} /> : null}
      </div>
      <span className={classes.by}>
        {open ? none : by} <Places places={places} draft={draft} onSelect={onSelect} />
      </span>
    </li>
  );
}

/** Who asks, beside the body. */
const ASKS: Readonly<Record<Draft['request']['mode'], string>> = {
  prepare: 'What follows asks',
  build: 'What the joints ask',
  restore: 'What coming down asks',
};

/** What the actions that follow and the joints to look after ask for, each with the drills that answer it, or why none does. */
function WhatFollowsAsks({
  draft,
  asked,
  onSelect,
}: Pick<Props, 'draft' | 'onSelect'> & { asked: ExplainedItems['asked'] }) {
  const reference = useReference();
  if (asked.length === 0) return null;
  return (
    <>
      <h2>
        {ASKS[draft.request.mode]}
        <span>
          {' '}
          {asked.filter(({ by }) => by.length > 0).length} of {asked.length} answered
        </span>
      </h2>
      <ul>
        {asked.map(({ element, by, inPart, because }) => {
          const known = reference.elements.get(element);
          if (!known) return null;
          return (
            <Line
              key={element}
              name={`${READINESS_PART_LABEL[known.part]}: ${known.for}`}
              {...(inPart ? { mark: <span aria-hidden>◐</span> } : {})}
              places={by}
              by={inPart ? 'in part by' : 'by'}
              none="not answered"
              because={because}
              draft={draft}
              onSelect={onSelect}
            />
          );
        })}
      </ul>
    </>
  );
}

/** What was chosen for a preparation, each with the drills in which it shows, or why in none. */
function WhatWasChosen({
  draft,
  choices,
  onSelect,
}: Pick<Props, 'draft' | 'onSelect'> & { choices: ExplainedItems['choices'] }) {
  const reference = useReference();
  if (choices.length === 0) return null;
  return (
    <>
      <h2>
        What was chosen
        <span>
          {' '}
          {choices.filter(({ by }) => by.length > 0).length} of {choices.length} show
        </span>
      </h2>
      <ul>
        {choices.map(({ choice, by, because }) => {
          const name =
            choice.kind === 'kit'
              ? `Kit: ${nameOf(reference, choice.kit)}`
              : optionLabel(reference, choice.school, choice.option);
          const shown = { name, places: by, because, draft, onSelect };
          return <Line key={name} by="in" none="in no drill" {...shown} />;
        })}
      </ul>
    </>
  );
}

/** What the body asks: what the routine answers and by which drills, what it does not and why, and what limits it. */
export function Answers({ draft, explained, report, onSelect }: Props) {
  const reference = useReference();
  const { report: findings } = useWorkspace();
  if (!explained) return <Text size="sm">Working out what it answers…</Text>;
  const unserved = explained.unserved;
  const isNamed = (restriction: string, side: string) =>
    unserved.some((one) => one.restriction === restriction && one.side === side);
  const answered = findings.findings
    .filter((f) => f.severity >= BUILDER.answeredFrom && !isNamed(f.restriction, f.side))
    .map((finding) => ({
      finding,
      by: draft.items.flatMap((item, place) => {
        const serves = explanationOf(explained, item.id)?.serves ?? [];
        const own = serves.some((s) => s.restriction === finding.restriction && s.side === finding.side);
        return own ? [place] : [];
      }),
    }))
    .filter(({ by }) => by.length > 0);
  const unused = report?.unused ?? null;
  const total = answered.length + unserved.length;
  return (
    <section className={classes.answers} aria-label="What the body asks">
      <h2>
        What the body asks
        {total > 0 ? (
          <span>
            {' '}
            {answered.length} of {total} answered
          </span>
        ) : null}
      </h2>
      {total === 0 ? (
        <Text size="sm" c="var(--muted)">
          {findings.capacities.length === 0
            ? 'Nothing is screened yet.'
            : 'Nothing that was measured is short.'}
        </Text>
      ) : null}
      <ul>
        {answered.map(({ finding, by }) => (
          <Line
            key={`${finding.restriction}/${finding.side}`}
            mark={<SideMark side={finding.side} />}
            name={nameOf(reference, finding.restriction)}
            places={by}
            by="by"
            none=""
            because={null}
            draft={draft}
            onSelect={onSelect}
          />
        ))}
      </ul>
      {unserved.length > 0 ? (
        <>
          <h3>Not answered</h3>
          <ul>
            {unserved.map(({ restriction, side, because }) => (
              <Line
                key={`${restriction}/${side}`}
                mark={<SideMark side={side} />}
                name={nameOf(reference, restriction)}
                places={[]}
                by=""
                none=""
                because={because}
                draft={draft}
                onSelect={onSelect}
              />
            ))}
          </ul>
        </>
      ) : null}
      <WhatFollowsAsks draft={draft} asked={explained.asked} onSelect={onSelect} />
      <WhatWasChosen draft={draft} choices={explained.choices} onSelect={onSelect} />
      {unused ? (
        <p className={classes.limits}>
          {duration(unused.seconds)} of the time stay free.{' '}
          {unused.because.map((one) => reasonText(reference, one)).join(' ')}
        </p>
      ) : null}
    </section>
  );
}
