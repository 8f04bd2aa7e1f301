import { Alert, Button, Group, Select, Title } from '@mantine/core';
import type { RoutineItem } from '@yonder/core/domain';
import type { ItemEntry } from '@yonder/core/session';
import type { DayRule } from '@yonder/core/safety';
import { amountText, lineName, nameOf } from '@yonder/core/words';
import { useState } from 'react';
import { useReference } from '../../app/reference.tsx';
import { UnitInput } from '../../components/UnitInput.tsx';
import classes from './Run.module.css';
import { ScoreAfter } from './Provoking.tsx';
import type { Run } from './useRun.ts';

const DONE: Readonly<Record<ItemEntry['done'], string>> = { all: 'done', part: 'in part', none: 'not done' };
const SCORES = Array.from({ length: 11 }, (_, i) => String(i));

/** Does only the one who did it know how many there were? */
function isUncounted({ asMany, circuit, measure }: RoutineItem): boolean {
  const counted = measure === 'reps' || measure === 'contacts';
  return counted && (asMany === true || circuit?.pace?.by === 'clock');
}

interface ScoreProps {
  /** What is scored, for those who do not see it. */
  label: string;
  /** The score; null when none was given. */
  value: number | null;
  /** The scores there are. */
  data: { value: string; label: string }[];
  /** Another score; null takes it back. */
  onChange: (value: number | null) => void;
}

function Score({ label, value, data, onChange }: ScoreProps) {
  return (
    <Select
      size="xs"
      w={96}
      aria-label={label}
      placeholder="–"
      data={data}
      value={value === null ? null : String(value)}
      onChange={(text) => onChange(text === null ? null : Number(text))}
    />
  );
}

/** Each drill with how far it was done, and the scores that are given for it. */
function AfterTable({ run }: { run: Run }) {
  const reference = useReference();
  const { entries } = run;
  // Said at once: a reload finds it again.
  const change = (
    { item }: ItemEntry,
    part: Partial<Pick<ItemEntry, 'painBefore' | 'pain' | 'effort' | 'quality' | 'amounts'>>,
  ) => run.say({ type: 'amended', item, ...part });
  const scores = SCORES.map((value) => ({ value, label: `${value} / 10` }));
  const quality = [
    { value: '3', label: 'good' },
    { value: '2', label: 'minor fault' },
    { value: '1', label: 'clear fault' },
    { value: '0', label: 'could not' },
  ];
  return (
    <div className={classes.scroll}>
      <table className={classes.afterTable}>
        <thead>
          <tr>
            {['Drill', 'Done', 'Pain before', 'Pain', 'Effort', 'Quality'].map((heading) => (
              <th key={heading} scope="col">
                {heading}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {entries.map((entry) => {
            const item = run.items[run.ids.indexOf(entry.item)];
            const name = item ? lineName(reference, item) : nameOf(reference, entry.drill);
            return (
              <tr key={entry.item}>
                <th scope="row">
                  {name} <span className="muted">{item ? amountText(item) : ''}</span>
                </th>
                <td>
                  {run.leftOut.has(entry.item) ? 'not for today' : DONE[entry.done]}
                  {item && isUncounted(item) && entry.done !== 'none' ? (
                    <UnitInput
                      size="xs"
                      w={96}
                      unit="in all"
                      aria-label={`How many of ${name}`}
                      value={entry.amounts.length > 0 ? entry.amounts.reduce((sum, n) => sum + n, 0) : null}
                      onChange={(n) =>
                        change(entry, { amounts: n !== null && n >= 0 && n <= 5000 ? [n] : [] })
                      }
                    />
                  ) : null}
                </td>
                <td>
                  <Score
                    label={`Pain before ${name}`}
                    value={entry.painBefore}
                    data={scores}
                    onChange={(v) => change(entry, { painBefore: v ?? 0 })}
                  />
                </td>
                <td>
                  <Score
                    label={`Pain in ${name}`}
                    value={entry.done === 'none' && entry.pain === 0 ? null : entry.pain}
                    data={scores}
                    onChange={(v) => change(entry, { pain: v ?? 0 })}
                  />
                </td>
                <td>
                  <Score
                    label={`Effort of ${name}`}
                    value={entry.effort}
                    data={scores}
                    onChange={(v) => change(entry, { effort: v })}
                  />
                </td>
                <td>
                  <Score
                    label={`Quality of ${name}`}
                    value={entry.quality}
                    data={quality}
                    onChange={(v) => change(entry, { quality: v })}
                  />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

/** After the run: what each drill hurt, how hard it was and how well it went. */
export function Afterwards({
  run,
  stopAbove,
  rules,
  onStored,
}: {
  run: Run;
  stopAbove: number;
  /** What hurts today. */
  rules: readonly DayRule[];
  onStored: () => void;
}) {
  const reference = useReference();
  const { entries } = run;
  const [busy, setBusy] = useState(false);
  const store = () => {
    setBusy(true);
    if (!run.over) run.say({ type: 'finished' });
    void run.settled().then((stored) => {
      setBusy(false);
      if (stored) onStored();
    });
  };
  const above = entries.filter((entry) => entry.pain > stopAbove);
  return (
    <div className={classes.after}>
      <Title order={2}>How was it?</Title>
      <AfterTable run={run} />
      <ScoreAfter run={run} rules={rules} />
      {above.length > 0 ? (
        <Alert color="copper">
          Pain above the limit of {stopAbove}/10: stop{' '}
          {above.map((e) => nameOf(reference, e.drill)).join(', ')} and tell the practitioner. If it is still
          raised tomorrow, say so.
        </Alert>
      ) : null}
      {run.problem ? (
        <Alert color="copper" role="alert">
          Not stored: {run.problem}
        </Alert>
      ) : null}
      <Group>
        <Button size="md" loading={busy} onClick={store}>
          Store the session
        </Button>
        <Button size="md" variant="default" onClick={run.back}>
          Back to the last drill
        </Button>
      </Group>
    </div>
  );
}
