import { Alert, Button, Group, Text, Title } from '@mantine/core';
import type { RoutineRow } from '@yonder/core/contracts';
import {
  lineAmount,
  circuitText,
  duration,
  lineName,
  MODE_LABEL,
  nameOf,
  optionLabel,
  reasonText,
  setupText,
  sideText,
  withSide,
} from '@yonder/core/words';
import { useState } from 'react';
import { Link, useLocation } from 'react-router';
import { Allowed } from '../../app/Allowed.tsx';
import { useReference } from '../../app/reference.tsx';
import { dayText } from '../../app/today.ts';
import { Thumb } from '../picture/Thumb.tsx';
import { OverrideNotes } from './OverrideNotes.tsx';
import { PrintHandout } from './PrintHandout.tsx';
import classes from './Routine.module.css';

interface Props {
  /** The version shown. */
  routine: RoutineRow;
  /** Only the version in force is run and carried on; older ones are folded. */
  inForce: boolean;
  /** Edit it as the next version. */
  onCopy: () => void;
}

/** An issued version: what it holds, what it answered, what changed; to print, run, or start the next from. */
export function IssuedVersion({ routine, inForce, onCopy }: Props) {
  const reference = useReference();
  const { search } = useLocation();
  const [refused, setRefused] = useState<string | null>(null);
  return (
    <section className={`card ${classes.version}`} aria-label={`Version ${routine.number}`}>
      <Group justify="space-between">
        <Title order={2} size={18}>
          Version {routine.number}: {MODE_LABEL[routine.mode].toLowerCase()}, {duration(routine.totalSeconds)}
        </Title>
        <Group gap="xs">
          <Allowed least="assistant">
            <PrintHandout
              href={`/api/v1/routines/${routine.id}/handout.pdf`}
              label="Print handout"
              onRefused={setRefused}
            />
            <PrintHandout
              href={`/api/v1/routines/${routine.id}/card.pdf`}
              label="Pocket card"
              onRefused={setRefused}
            />
          </Allowed>
          {inForce ? (
            <>
              <Allowed least="assistant">
                <Button
                  component={Link}
                  to={{ pathname: '../run', search }}
                  relative="path"
                  variant="default"
                  size="xs"
                >
                  Run
                </Button>
              </Allowed>
              <Allowed least="clinician">
                <Button variant="light" size="xs" onClick={onCopy}>
                  Edit as the next version
                </Button>
              </Allowed>
            </>
          ) : null}
        </Group>
      </Group>
      {refused ? (
        <Alert color="red" role="alert" p={8} title="Not printed">
          {refused}
        </Alert>
      ) : null}
      <Text size="sm" c="var(--muted)">
        Issued {dayText(routine.issuedOn)} by {routine.issuedBy}
        {routine.findings.length > 0
          ? `, answering ${routine.findings
              .slice(0, 3)
              .map((f) => withSide(nameOf(reference, f.restriction).toLowerCase(), f.side))
              .join('; ')}`
          : ''}
        .
      </Text>
      {routine.changes.length > 0 ? (
        <ul className={classes.changes}>
          {routine.changes.map((change, i) => (
            <li key={i}>{reasonText(reference, change)}</li>
          ))}
        </ul>
      ) : null}
      <OverrideNotes overrides={routine.overrides} />
      {Object.entries(routine.schools).map(([school, option]) => (
        <Text key={school} size="sm">
          Method of this version, chosen by {routine.issuedBy}: {nameOf(reference, school)}:{' '}
          {optionLabel(reference, school, option)}.
        </Text>
      ))}
      <details open={inForce}>
        <summary>Drills</summary>
        <ol className={classes.issued}>
          {routine.items.map((item) => {
            const drill = reference.drills.get(item.drill);
            return (
              <li key={item.id}>
                <Thumb drill={drill} side={item.side} px={48} />
                <span>
                  <b>{lineName(reference, item)}</b>
                  {lineAmount(item) === '' ? '' : `, ${lineAmount(item)}`}
                  {drill ? ` ${sideText(drill, item)}` : ''}
                  {item.circuit ? <span className="muted"> in {circuitText(item.circuit)}</span> : null}
                  <span className="muted">
                    {drill && setupText(drill, item) ? ` (${setupText(drill, item)})` : ''}
                  </span>
                </span>
              </li>
            );
          })}
        </ol>
      </details>
    </section>
  );
}
