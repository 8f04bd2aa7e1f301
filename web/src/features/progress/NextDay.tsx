import { Button, Select, Text } from '@mantine/core';
import type { SessionRow } from '@yonder/core/contracts';
import { nameOf } from '@yonder/core/words';
import { useState } from 'react';
import { Allowed } from '../../app/Allowed.tsx';
import { useReference } from '../../app/reference.tsx';
import { dueText, shortDay } from '../../app/today.ts';
import { WhyPanel } from '../../components/WhyPanel.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { useSessionsQuery } from '../run/sessionEndpoints.ts';
import { useEvents } from '../run/useEvents.ts';
import classes from './Progress.module.css';

const SCORES = Array.from({ length: 11 }, (_, i) => ({ value: String(i), label: `${i} / 10` }));

function MorningForm({ session }: { session: SessionRow }) {
  const reference = useReference();
  const [pains, setPains] = useState<Readonly<Record<string, number>>>({});
  const { say, settled, problem } = useEvents(session.id, []);
  const [busy, setBusy] = useState(false);
  // A morning nobody asked about is not a morning without pain: each drill is answered.
  const answered = session.entries.flatMap(({ item }) => {
    const nextDayPain = pains[item];
    return nextDayPain === undefined ? [] : [{ type: 'amended' as const, item, nextDayPain }];
  });
  const missing = session.entries.length - answered.length;
  const send = () => {
    say(...answered);
    setBusy(true);
    void settled().then(() => setBusy(false));
  };
  return (
    <div>
      <Text size="sm" fw={650} mt={6}>
        Morning after {shortDay(session.date)}
      </Text>
      {session.entries.map(({ item, drill }) => (
        <div key={item} className={classes.morning}>
          <span>{nameOf(reference, drill)}</span>
          <Select
            size="xs"
            w={86}
            aria-label={`Next morning, ${nameOf(reference, drill)}`}
            data={SCORES}
            allowDeselect={false}
            placeholder="pain"
            value={pains[item] === undefined ? null : String(pains[item])}
            onChange={(value) => {
              if (value !== null) setPains((current) => ({ ...current, [item]: Number(value) }));
            }}
          />
        </div>
      ))}
      <Allowed least="assistant">
        {missing > 0 ? (
          <Button
            size="xs"
            variant="default"
            mt={6}
            mr={8}
            onClick={() =>
              setPains((said) => ({
                ...Object.fromEntries(session.entries.map(({ item }) => [item, 0])),
                ...said,
              }))
            }
          >
            {answered.length > 0 ? 'The rest: no pain' : 'No pain at all'}
          </Button>
        ) : null}
        <Button size="xs" variant="light" mt={6} loading={busy} disabled={missing > 0} onClick={send}>
          {missing > 0 ? `Store the morning (${missing} to answer)` : 'Store the morning'}
        </Button>
      </Allowed>
      {problem ? (
        <Text size="sm" c="var(--danger)" role="alert">
          {problem}
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
              ['Next rescreen', dueText(next.due, on)],
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
