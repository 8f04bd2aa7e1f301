import { Alert, Button, Group, Text, TextInput, Title } from '@mantine/core';
import type { FigureEffect, FigureRow } from '@yonder/core/contracts';
import type { Test } from '@yonder/core/reference';
import { nameOf, number, STATE_LABEL, withSide } from '@yonder/core/words';
import { Fragment, useState } from 'react';
import { Link } from 'react-router';
import { Allowed } from '../../app/Allowed.tsx';
import { errorText } from '../../app/api.ts';
import { useLook } from '../../app/useLook.ts';
import { useBundledReference, useReference } from '../../app/reference.tsx';
import { useKeptState } from '../../app/kept/useKept.ts';
import { dayText } from '../../app/today.ts';
import { Refusal } from '../../components/Refusal.tsx';
import { UnitInput } from '../../components/UnitInput.tsx';
import {
  useFiguresQuery,
  usePreviewFiguresMutation,
  useSetFigureMutation,
  useUnsetFigureMutation,
} from './figureEndpoints.ts';
import type { NewFigure } from './figureEndpoints.ts';
import classes from './Figures.module.css';
import { editableFigures, figureText } from './figures.ts';
import type { EditableFigure } from './figures.ts';

const stateText = (state: string) => STATE_LABEL[state as keyof typeof STATE_LABEL] ?? 'no finding';

/** Whose findings would change, in words. */
function Effect({ effect }: { effect: Pick<FigureEffect, 'judged' | 'changed'> }) {
  const reference = useReference();
  const { judged, changed } = effect;
  if (changed.length === 0) {
    return (
      <Text size="sm" role="status">
        No finding changes among {judged} athletes.
      </Text>
    );
  }
  return (
    <div role="status" className={classes.effect}>
      <b>
        Findings of {changed.length} of {judged} athletes would change:
      </b>
      <ul>
        {changed.slice(0, 12).map(({ athleteId, name, changes }) => (
          <li key={athleteId}>
            <Link to={`/athletes/${athleteId}/ridge`}>{name}</Link>:{' '}
            {changes
              .slice(0, 3)
              .map((c) =>
                c.from === c.to
                  ? `${withSide(nameOf(reference, c.restriction), c.side).toLowerCase()} severity ${number(c.severityFrom, 2)} → ${number(c.severityTo, 2)}`
                  : `${withSide(nameOf(reference, c.restriction), c.side).toLowerCase()} ${stateText(c.from)} → ${stateText(c.to)}`,
              )
              .join('; ')}
            {changes.length > 3 ? ` and ${changes.length - 3} more` : ''}
          </li>
        ))}
      </ul>
      {changed.length > 12 ? <span>and {changed.length - 12} athletes more</span> : null}
    </div>
  );
}

interface EditorProps {
  /** The test the figure belongs to. */
  test: Test;
  /** The figure, its unit and its value in force. */
  row: EditableFigure;
  /** Saved, or given up. */
  onClose: () => void;
}

/** New value and reason; first what it would change, then saving. */
function Editor({ test, row, onClose }: EditorProps) {
  const typed = useKeptState(`figure/${test.id}/${row.path}/${row.task ?? ''}`, `A figure of ${test.name}`, {
    value: row.value,
    reason: '',
  });
  const { value, reason } = typed.value;
  const setValue = (next: number | null) => typed.set({ value: next, reason });
  const setReason = (next: string) => typed.set({ value, reason: next });
  const [ask] = usePreviewFiguresMutation();
  const { look, start, stop } = useLook((figure: NewFigure, from) => ask({ set: [figure], from }).unwrap());
  const [save, { isLoading: saving, error }] = useSetFigureMutation();
  const input = {
    test: test.id,
    path: row.path,
    ...(row.task ? { task: row.task } : {}),
    value: value ?? 0,
    reason,
  };
  const known = look.kind === 'done' && look.asked.value === value;
  return (
    <div className={classes.editor}>
      <Group align="flex-end" gap="xs">
        <UnitInput
          label={`${row.label}, new value`}
          unit={row.unit === 'deg' ? '°' : row.unit}
          w={170}
          value={value}
          onChange={setValue}
        />
        <TextInput
          label="Why"
          w={280}
          value={reason}
          onChange={(e) => setReason(e.currentTarget.value)}
          placeholder="source, or what you saw"
        />
        {look.kind === 'looking' ? (
          <Button variant="outline" onClick={stop}>
            Stop looking
          </Button>
        ) : (
          <Button variant="light" disabled={value === null} onClick={() => void start(input)}>
            Whose findings change?
          </Button>
        )}
        <Button
          loading={saving}
          disabled={!known || reason.trim().length < 3}
          onClick={() =>
            save(input)
              .unwrap()
              .then(
                () => {
                  typed.done();
                  onClose();
                },
                () => undefined,
              )
          }
        >
          Save figure
        </Button>
        <Button
          variant="subtle"
          onClick={() => {
            typed.discard();
            onClose();
          }}
        >
          Cancel
        </Button>
      </Group>
      {look.kind === 'looking' ? (
        <Text size="sm" role="status">
          {look.judged} of {look.total ?? '…'} athletes looked at
        </Text>
      ) : null}
      {known ? (
        <Effect effect={{ judged: look.judged, changed: look.parts.flatMap((part) => part.changed) }} />
      ) : null}
      {error || look.kind === 'failed' ? (
        <Alert color="copper" role="alert" mt={6} p={8}>
          {look.kind === 'failed' ? look.message : errorText(error)}
        </Alert>
      ) : null}
      {known && reason.trim().length < 3 ? (
        <Text size="xs" c="var(--muted)">
          Say why before it can be saved.
        </Text>
      ) : null}
    </div>
  );
}

interface EditNoteProps {
  /** The edit in force. */
  edit: FigureRow;
  /** What the figure is called. */
  label: string;
  /** Its unit. */
  unit: string;
}

/** Who edited a figure, when, what it replaced and why; and the way back, with its own reason. */
function EditNote({ edit, label, unit }: EditNoteProps) {
  const typed = useKeptState(`figure-back/${edit.id}`, `Why ${label.toLowerCase()} is set back`, '');
  const [asking, setAsking] = useState(typed.value !== '');
  const [unset, { isLoading, error }] = useUnsetFigureMutation();
  const setBack = () =>
    unset({ id: edit.id, version: edit.version, reason: typed.value })
      .unwrap()
      .then(typed.done, () => undefined); // shown below
  return (
    <div className={classes.note}>
      edited by {edit.by} on {dayText(edit.date)}, was {figureText(edit.oldValue, unit)}: {edit.reason}{' '}
      {asking ? (
        <Group align="flex-end" gap="xs">
          <TextInput
            size="xs"
            label="Why it is set back"
            value={typed.value}
            onChange={(e) => typed.set(e.currentTarget.value)}
          />
          <Button
            size="xs"
            loading={isLoading}
            disabled={typed.value.trim().length < 3}
            onClick={() => void setBack()}
          >
            Set back now
          </Button>
          <Button
            size="xs"
            variant="subtle"
            onClick={() => {
              typed.discard();
              setAsking(false);
            }}
          >
            Keep it
          </Button>
        </Group>
      ) : (
        <Allowed least="owner">
          <Button size="compact-xs" variant="light" onClick={() => setAsking(true)}>
            Set back…
          </Button>
        </Allowed>
      )}
      <Refusal error={error} mt={4} />
    </div>
  );
}

/** An edit that ended: what it put in place of what, why, and how it ended. */
function historyText(e: FigureRow, label: string, unit: string): string {
  const said = `${label}: ${figureText(e.oldValue, unit)} → ${figureText(e.value, unit)}, ${e.by}, ${dayText(e.date)}: ${e.reason}`;
  if (!e.ended) return said;
  const { by, date, reason } = e.ended;
  return `${said}; ${reason === null ? 'replaced' : 'set back'} on ${dayText(date)} by ${by}${reason === null ? '' : `: ${reason}`}`;
}

/** All figures of one test, where they come from, and what the practice put in their place. */
export function FigureCard({ test }: { test: Test }) {
  const reference = useReference();
  const bundled = useBundledReference();
  const { data } = useFiguresQuery();
  const [open, setOpen] = useState<string | null>(null);
  const rows = editableFigures(reference, test);
  const shipped = new Map(
    editableFigures(bundled, bundled.tests.get(test.id) ?? test).map((r) => [
      `${r.path}/${r.task ?? ''}`,
      r.value,
    ]),
  );
  const own = (data?.edits ?? []).filter((e) => e.test === test.id);
  const ended = own.filter((e) => e.ended !== null);
  const rowOf = (e: FigureRow) => rows.find((r) => r.path === e.path && (r.task ?? '') === (e.task ?? ''));
  const labelOf = (e: FigureRow) => rowOf(e)?.label ?? e.path;
  const unitOf = (e: FigureRow) => rowOf(e)?.unit ?? test.unit;
  const source =
    test.source === 'convention'
      ? 'convention, no single source'
      : test.source.map((s) => `${s.authors} ${s.year}`).join('; ');
  return (
    <section className={`card ${classes.card}`} aria-labelledby="figure-title">
      <Title order={2} size={20} id="figure-title">
        {test.name}
      </Title>
      <p className="muted">
        Confidence: error {test.confidenceBy.error}, reference {test.confidenceBy.reference}, cut-off{' '}
        {test.confidenceBy.flag}. Source: {source}{' '}
        {test.source === 'convention' ? '' : '(recalled, not verified)'}. Usual: {test.reference.low} to{' '}
        {test.reference.high} {test.unit === 'deg' ? '°' : test.unit}, {test.reference.population}.
      </p>
      <table className={classes.figures} aria-label="Figures">
        <tbody>
          {rows.map((row) => {
            const key = `${row.path}/${row.task ?? ''}`;
            const edit = own.find(
              (e) => e.ended === null && e.path === row.path && (e.task ?? '') === (row.task ?? ''),
            );
            const was = shipped.get(key);
            return (
              <Fragment key={key}>
                <tr>
                  <th scope="row">{row.label}</th>
                  <td className="numeric">
                    <b>{figureText(row.value, row.unit)}</b>
                    {edit && was !== undefined && was !== row.value ? (
                      <span className="muted"> reference {figureText(was, row.unit)}</span>
                    ) : null}
                  </td>
                  <td>
                    {open === key ? null : (
                      <Allowed least="owner">
                        <Button
                          size="compact-sm"
                          variant="subtle"
                          aria-label={`Edit ${row.label}`}
                          onClick={() => setOpen(key)}
                        >
                          Edit
                        </Button>
                      </Allowed>
                    )}
                    {edit ? <EditNote edit={edit} label={row.label} unit={row.unit} /> : null}
                  </td>
                </tr>
                {open === key ? (
                  <tr data-editor>
                    <td colSpan={3}>
                      <Editor test={test} row={row} onClose={() => setOpen(null)} />
                    </td>
                  </tr>
                ) : null}
              </Fragment>
            );
          })}
        </tbody>
      </table>
      {ended.length > 0 ? (
        <details className={classes.history}>
          <summary>Earlier edits ({ended.length})</summary>
          <ul>
            {ended.map((e) => (
              <li key={e.id}>{historyText(e, labelOf(e), unitOf(e))}</li>
            ))}
          </ul>
        </details>
      ) : null}
    </section>
  );
}
