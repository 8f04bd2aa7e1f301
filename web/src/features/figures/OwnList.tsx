import { Button, Group, Text, Title } from '@mantine/core';
import { IconPlus } from '@tabler/icons-react';
import { useState } from 'react';
import type { ReactNode } from 'react';
import { Allowed } from '../../app/Allowed.tsx';
import { Refusal } from '../../components/Refusal.tsx';
import classes from './Figures.module.css';

interface Props<Row> {
  /** Id of the heading. */
  id: string;
  title: string;
  /** What one of them is called on its button: "task". */
  one: string;
  /** What they are for, in a sentence. */
  children: ReactNode;
  /** Undefined until they are there. */
  rows: readonly Row[] | undefined;
  /** A row in one line, after its name. */
  line: (row: Row) => ReactNode;
  /** The form for a row, or for a new one. */
  form: (row: Row | null, onDone: () => void) => ReactNode;
  onRemove: (row: Row) => void;
  /** What removing was refused with. */
  error: unknown;
}

/** A list of something of the practice's own: each row is edited in its place, a new one above them. */
export function OwnList<Row extends { rowId: string; name: string }>(props: Props<Row>) {
  const { id, title, one, children, rows, line, form, onRemove, error } = props;
  const [open, setOpen] = useState<string | null>(null);
  const close = () => setOpen(null);
  return (
    <section className={`card ${classes.card}`} aria-labelledby={id}>
      <Group justify="space-between">
        <Title order={2} size={20} id={id}>
          {title}
        </Title>
        <Allowed least="clinician">
          <Button leftSection={<IconPlus size={16} />} onClick={() => setOpen('new')}>
            Add {one}
          </Button>
        </Allowed>
      </Group>
      <Text size="sm" c="var(--muted)">
        {children}
      </Text>
      {open === 'new' ? form(null, close) : null}
      <ul className={classes.tasks}>
        {(rows ?? []).map((row) => (
          <li key={row.rowId}>
            {open === row.rowId ? (
              form(row, close)
            ) : (
              <Group justify="space-between" wrap="nowrap">
                <span>
                  <b>{row.name}</b> {line(row)}
                </span>
                <Allowed least="clinician">
                  <Group gap={4} wrap="nowrap">
                    <Button size="compact-sm" variant="subtle" onClick={() => setOpen(row.rowId)}>
                      Edit
                    </Button>
                    <Button
                      size="compact-sm"
                      variant="subtle"
                      aria-label={`Remove ${row.name}`}
                      onClick={() => onRemove(row)}
                    >
                      Remove
                    </Button>
                  </Group>
                </Allowed>
              </Group>
            )}
          </li>
        ))}
        {rows?.length === 0 && open !== 'new' ? <li className="muted">None yet.</li> : null}
      </ul>
      <Refusal error={error} />
    </section>
  );
}
