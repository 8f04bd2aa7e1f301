import { Text } from '@mantine/core';
import { BUILDER } from '@yonder/core/builder';
import type { BuildReport } from '@yonder/core/builder';
import type { Draft } from '@yonder/core/contracts';
import type { Side } from '@yonder/core/domain';
import type { Reason } from '@yonder/core/reasons';
import type { Reference } from '@yonder/core/reference';
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

/** One thing that is asked for. */
interface Asked {
  id: string;
  name: string;
  /** Places of the drills that answer it. */
  places: readonly number[];
  /** What stands before the places, and in their place where there are none. */
  by: string;
  none?: string;
  because: Reason | null;
  /** What stands before it; else whether it is answered. */
  mark?: ReactNode;
}

/**
 * One thing that is asked for, with the drills that answer it, or why none does. Where the nearest drill only waits for
 * somebody to have seen it done, the press that says so stands beside it.
 */
function Line({
  asked: { name, places, by, none = '', because, mark },
  draft,
  onSelect,
}: Pick<Props, 'draft' | 'onSelect'> & { asked: Asked }) {
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

/** What somebody asks for, with how much of it is there; nothing where nothing is asked. */
function Asks({
  who,
  word,
  all,
  ...page
}: Pick<Props, 'draft' | 'onSelect'> & { who: string; word: string; all: readonly Asked[] }) {
  if (all.length === 0) return null;
  return (
    <>
      <h2>
        {who}
        <span>{` ${all.filter(({ places }) => places.length > 0).length} of ${all.length} ${word}`}</span>
      </h2>
      <ul>
        {all.map((asked) => (
          <Line key={asked.id} asked={asked} {...page} />
        ))}
      </ul>
    </>
  );
}

/** Who asks, beside the body. */
const ASKS: Readonly<Record<Draft['request']['mode'], string>> = {
  prepare: 'What follows asks',
  build: 'What the joints ask',
  restore: 'What coming down asks',
};

/** What the actions that follow and the joints to look after ask for. */
const askedOf = (reference: Reference, asked: ExplainedItems['asked']): Asked[] =>
  asked.flatMap(({ element, by, inPart, because }) => {
    const known = reference.elements.get(element);
    if (!known) return [];
    return {
      id: element,
      name: `${READINESS_PART_LABEL[known.part]}: ${known.for}`,
      places: by,
      by: inPart ? 'in part by' : 'by',
      none: 'not answered',
      because,
      ...(inPart ? { mark: <span aria-hidden>◐</span> } : {}),
    };
  });

/** What was chosen for a preparation, to be seen in its drills. */
const chosenOf = (reference: Reference, choices: ExplainedItems['choices']): Asked[] =>
  choices.map(({ choice, by, because }) => {
    const name =
      choice.kind === 'kit'
        ? `Kit: ${nameOf(reference, choice.kit)}`
        : optionLabel(reference, choice.school, choice.option);
    return { id: name, name, places: by, by: 'in', none: 'in no drill', because };
  });

/** What the body asks: what the routine answers and by which drills, what it does not and why, and what limits it. */
export function Answers({ draft, explained, report, onSelect }: Props) {
  const reference = useReference();
  const { report: findings } = useWorkspace();
  if (!explained) return <Text size="sm">Working out what it answers…</Text>;
  const unserved = explained.unserved;
  const page = { draft, onSelect };
  const ofBody = ({ restriction, side }: { restriction: string; side: Side }) => ({
    id: `${restriction}/${side}`,
    name: nameOf(reference, restriction),
    mark: <SideMark side={side} />,
    by: 'by',
  });
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
            asked={{ ...ofBody(finding), places: by, because: null }}
            {...page}
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
                asked={{ ...ofBody({ restriction, side }), places: [], because }}
                {...page}
              />
            ))}
          </ul>
        </>
      ) : null}
      <Asks
        who={ASKS[draft.request.mode]}
        word="answered"
        all={askedOf(reference, explained.asked)}
        {...page}
      />
      <Asks who="What was chosen" word="show" all={chosenOf(reference, explained.choices)} {...page} />
      {unused ? (
        <p className={classes.limits}>
          {duration(unused.seconds)} of the time stay free.{' '}
          {unused.because.map((one) => reasonText(reference, one)).join(' ')}
        </p>
      ) : null}
    </section>
  );
}
