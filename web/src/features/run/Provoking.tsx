import { Select, Text } from '@mantine/core';
import type { Happening } from '@yonder/core/session';
import type { DayRule } from '@yonder/core/safety';
import { nameOf, withSide } from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';
import classes from './Run.module.css';
import type { Run } from './useRun.ts';

/** What a movement that hurts was scored, by region and side. */
export type Scores = Readonly<Record<string, number>>;

const SCORES = Array.from({ length: 11 }, (_, i) => ({ value: String(i), label: `${i} / 10` }));
const keyOf = ({ region, side }: Pick<DayRule, 'region' | 'side'>) => `${region}/${side}`;

/** Regions whose movement may be scored: those that hurt, but not above the limit, where nothing is tried. */
const scorable = (rules: readonly DayRule[]) => rules.filter(({ band }) => band !== 'above');

/** The scores of before the start, as what happened. */
export function scoredBefore(rules: readonly DayRule[], scores: Scores): Happening[] {
  return scorable(rules).flatMap((rule): Happening[] => {
    const nrs = scores[keyOf(rule)];
    const { region, side } = rule;
    return nrs === undefined ? [] : [{ type: 'provoked', region, side, moment: 'before', nrs }];
  });
}

interface ScoreProps {
  rules: readonly DayRule[];
  title: string;
  valueOf: (rule: DayRule) => number | null;
  onScore: (rule: DayRule, nrs: number) => void;
}

function Score({ rules, title, valueOf, onScore }: ScoreProps) {
  const reference = useReference();
  const hurting = scorable(rules);
  if (hurting.length === 0) return null;
  return (
    <section className={classes.provoking} aria-label={title}>
      <Text size="sm" fw={650}>
        {title}
      </Text>
      <Text size="sm" c="var(--muted)">
        Do the movement that brings the pain on, once, and score it; before and after tells whether the
        session helps.
      </Text>
      {hurting.map((rule) => {
        const place = withSide(nameOf(reference, rule.region), rule.side);
        const value = valueOf(rule);
        return (
          <label key={keyOf(rule)} className={classes.score}>
            <span>{place}</span>
            <Select
              size="xs"
              w={104}
              placeholder="not scored"
              aria-label={`${title}: ${place}`}
              data={SCORES}
              allowDeselect={false}
              value={value === null ? null : String(value)}
              onChange={(text) => text !== null && onScore(rule, Number(text))}
            />
          </label>
        );
      })}
    </section>
  );
}

/** Offered before the start: the movement that hurts, scored. */
export function ScoreBefore({
  rules,
  scores,
  onScores,
}: {
  rules: readonly DayRule[];
  scores: Scores;
  onScores: (scores: Scores) => void;
}) {
  return (
    <Score
      rules={rules}
      title="The movement that hurts, before"
      valueOf={(rule) => scores[keyOf(rule)] ?? null}
      onScore={(rule, nrs) => onScores({ ...scores, [keyOf(rule)]: nrs })}
    />
  );
}

/** Offered after the last drill: the same movement, scored again. */
export function ScoreAfter({ run, rules }: { run: Run; rules: readonly DayRule[] }) {
  const known = ({ region, side }: DayRule) =>
    run.provoked.find((one) => one.region === region && one.side === side);
  return (
    <Score
      rules={rules}
      title="The movement that hurts, after"
      valueOf={(rule) => known(rule)?.after ?? null}
      onScore={({ region, side }, nrs) => run.say({ type: 'provoked', region, side, moment: 'after', nrs })}
    />
  );
}
