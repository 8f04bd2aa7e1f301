import { Button, Select, Text } from '@mantine/core';
import type { SessionRow } from '@yonder/core/contracts';
import { nameOf } from '@yonder/core/words';
import { useState } from 'react';
import { errorText } from '../../app/api.ts';
import { useReference } from '../../app/reference.tsx';
import { dayText, shortDay } from '../../app/today.ts';
import { WhyPanel } from '../../components/WhyPanel.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { useSaveNextDayMutation, useSessionsQuery } from '../run/sessionEndpoints.ts';
import classes from './Progress.module.css';

const SCORES = Array.from({ length: 11 }, (_, i) => ({ value: String(i), label: `${i} / 10` }));

function MorningForm({ session }: { session: SessionRow }) {
  const reference = useReference();
  const [pains, setPains] = useState<Record<number, number>>({});
  const [save, { isLoading, error }] = useSaveNextDayMutation();
  // A morning nobody asked about is not a morning without pain: each drill is answered.
  const answered = session.entries.flatMap((_, index) => {
    const nextDayPain = pains[index];
    return nextDayPain === undefined ? [] : [{ index, nextDayPain }];
  });
  const missing = session.entries.length - answered.length;
  const send = () => {
    void save({ sessionId: session.id, body: { version: session.version, pains: answered } });
  };
  return (
    <div>
      <Text size="sm" fw={650} mt={6}>
        Morning after {shortDay(session.date)}
      </Text>
      {session.entries.map((entry, index) => (
        <div key={entry.drill} className={classes.morning}>
          <span>{nameOf(reference, entry.drill)}</span>
          <Select
            size="xs"
            w={86}
            aria-label={`Next morning, ${nameOf(reference, entry.drill)}`}
            data={SCORES}
            allowDeselect={false}
            placeholder="pain"
            value={pains[index] === undefined ? null : String(pains[index])}
            onChange={(value) => {
              if (value !== null) setPains((current) => ({ ...current, [index]: Number(value) }));
            }}
          />
        </div>
      ))}
      <Button size="xs" variant="light" mt={6} loading={isLoading} disabled={missing > 0} onClick={send}>
        {missing > 0 ? `Store the morning (${missing} to answer)` : 'Store the morning'}
      </Button>
      {error ? (
        <Text size="sm" c="var(--danger)" role="alert">
          {errorText(error)}
        </Text>
      ) : null}
    </div>
  );
}

/** The other half of the evidence: how the morning after was, and when the next rescreen is worth doing. */
export function NextDay() {
  const reference = useReference();
  const { athlete, on, report } = useWorkspace();
  const { data } = useSessionsQuery(athlete.id);
  const open = (data ?? []).find(
    (s) =>
      s.finished && s.date <= on && s.entries.length > 0 && s.entries.every((e) => e.nextDayPain === null),
  );
  const next = report.rescreen[0];
  return (
    <WhyPanel
      title="Evidence"
      figures={
        next
          ? [
              ['Next rescreen', dayText(next.due)],
              ['First', nameOf(reference, next.test)],
            ]
          : []
      }
    >
      {open ? (
        <MorningForm key={open.id} session={open} />
      ) : (
        <Text size="sm">No morning report is missing.</Text>
      )}
    </WhyPanel>
  );
}
