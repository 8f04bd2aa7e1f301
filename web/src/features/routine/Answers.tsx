import { Text } from '@mantine/core';
import { BUILDER } from '@yonder/core/builder';
import type { BuildReport } from '@yonder/core/builder';
import type { Draft } from '@yonder/core/contracts';
import { duration, nameOf, optionLabel, READINESS_PART_LABEL, reasonText } from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';
import { SideMark } from '../../components/SideMark.tsx';
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
            <li key={element} data-open={by.length === 0 || undefined}>
              <span aria-hidden>{by.length > 0 ? (inPart ? '◐' : '●') : '○'}</span>
              <span>
                {READINESS_PART_LABEL[known.part]}: {known.for}
                {because ? <span className={classes.why}>{reasonText(reference, because)}</span> : null}
              </span>
              <span className={classes.by}>
                {by.length > 0 ? (inPart ? 'in part by ' : 'by ') : 'not answered'}
                <Places places={by} draft={draft} onSelect={onSelect} />
              </span>
            </li>
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
              ? nameOf(reference, choice.kit)
              : optionLabel(reference, choice.school, choice.option);
          return (
            <li key={name} data-open={by.length === 0 || undefined}>
              <span aria-hidden>{by.length > 0 ? '●' : '○'}</span>
              <span>
                {name}
                {because ? <span className={classes.why}>{reasonText(reference, because)}</span> : null}
              </span>
              <span className={classes.by}>
                {by.length > 0 ? 'in ' : 'in no drill'}
                <Places places={by} draft={draft} onSelect={onSelect} />
              </span>
            </li>
          );
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
          <li key={`${finding.restriction}/${finding.side}`}>
            <SideMark side={finding.side} />
            <span>{nameOf(reference, finding.restriction)}</span>
            <span className={classes.by}>
              by <Places places={by} draft={draft} onSelect={onSelect} />
            </span>
          </li>
        ))}
      </ul>
      {unserved.length > 0 ? (
        <>
          <h3>Not answered</h3>
          <ul>
            {unserved.map(({ restriction, side, because }) => (
              <li key={`${restriction}/${side}`} data-open>
                <SideMark side={side} />
                <span>
                  {nameOf(reference, restriction)}
                  <span className={classes.why}>{reasonText(reference, because)}</span>
                </span>
              </li>
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
