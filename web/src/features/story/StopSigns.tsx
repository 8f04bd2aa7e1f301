import { Alert, Button, Title } from '@mantine/core';
import { useState } from 'react';
import { Allowed } from '../../app/Allowed.tsx';
import { useReference } from '../../app/reference.tsx';
import { dayText } from '../../app/today.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { ClearanceForm } from './ClearanceForm.tsx';
import classes from './Story.module.css';

/** Positive stop-and-refer answers, open ones first, each with the way to a named clinician's clearance. */
export function StopSigns() {
  const reference = useReference();
  const { athlete } = useWorkspace();
  const [clearing, setClearing] = useState<string | null>(null);
  if (athlete.redFlags.length === 0) return null;
  const rows = [...athlete.redFlags].sort(
    (a, b) => Number(a.clearance !== null) - Number(b.clearance !== null),
  );
  return (
    <section className={`card ${classes.panel}`}>
      <Title order={2} size={17}>
        Stop-and-refer signs
      </Title>
      <ul className={classes.list}>
        {rows.map((row) => (
          <li key={row.id}>
            <div>
              <b>{reference.redFlags.get(row.redFlag)?.question}</b> Yes, {dayText(row.answeredOn)}, asked by{' '}
              {row.answeredBy}.
            </div>
            {row.clearance ? (
              <div className="muted">
                Cleared by {row.clearance.by}, {dayText(row.clearance.date)}: {row.clearance.scope}
              </div>
            ) : (
              <Alert color="red" p={8} mt={4}>
                {reference.redFlags.get(row.redFlag)?.action}
                {clearing === row.id ? (
                  <ClearanceForm row={row} of="sign" onDone={() => setClearing(null)} />
                ) : (
                  <div>
                    <Allowed least="clinician">
                      <Button size="compact-xs" variant="default" mt={4} onClick={() => setClearing(row.id)}>
                        Record a clearance
                      </Button>
                    </Allowed>
                  </div>
                )}
              </Alert>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
