import { Text } from '@mantine/core';
import { BUILDER } from '@yonder/core/builder';
import type { BuildReport } from '@yonder/core/builder';
import type { Draft } from '@yonder/core/contracts';
import { duration, nameOf, reasonText } from '@yonder/core/words';
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
        return own ? [{ place, id: item.id }] : [];
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
      <ul>
        {answered.map(({ finding, by }) => (
          <li key={`${finding.restriction}/${finding.side}`}>
            <SideMark side={finding.side} />
            <span>{nameOf(reference, finding.restriction)}</span>
            <span className={classes.by}>
              by{' '}
              {by.map(({ place, id }, i) => (
                <span key={id}>
                  {i > 0 ? ', ' : ''}
                  <button type="button" className={classes.link} onClick={() => onSelect(id)}>
                    {place + 1}
                  </button>
                </span>
              ))}
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
      {unused ? (
        <p className={classes.limits}>
          {duration(unused.seconds)} of the time stay free.{' '}
          {unused.because.map((one) => reasonText(reference, one)).join(' ')}
        </p>
      ) : null}
    </section>
  );
}
