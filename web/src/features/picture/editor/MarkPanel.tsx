import { Button, Checkbox, Group, Select, Text } from '@mantine/core';
import type { Mark, SolvedFigure } from '@yonder/core/figure';
import { markKinds, MOST, newMark, placeOfWork, PUSHES, wayOfPush } from './changes.ts';
import classes from './Editor.module.css';
import { MARK_WORDS, PLACE_WORDS, placeWord } from './words.ts';

interface Props {
  /** What is drawn. */
  figure: SolvedFigure;
  /** It was changed. */
  onChange: (figure: SolvedFigure) => void;
}

/** A select's rows, with what is there now among them. */
const withNow = (rows: readonly (readonly [string, string])[], now: string) =>
  [...rows, ...(rows.some(([value]) => value === now) ? [] : [[now, placeWord(now)] as const])].map(
    ([value, label]) => ({ value, label }),
  );

/** How an arrow goes: which way, to and fro, up to a stop. */
function Arrow({ mark, onChange }: { mark: Mark; onChange: (mark: Mark) => void }) {
  if (!('push' in mark) && !('move' in mark)) return null;
  return (
    <>
      {'push' in mark ? (
        <Select
          size="xs"
          aria-label="Which way"
          allowDeselect={false}
          data={withNow(
            Object.keys(PUSHES).map((way) => [way, way]),
            wayOfPush(mark.to),
          )}
          value={wayOfPush(mark.to)}
          onChange={(way) => way && PUSHES[way] && onChange({ ...mark, to: [...PUSHES[way]] })}
        />
      ) : null}
      <Group gap={14}>
        {'push' in mark ? (
          <Checkbox
            size="xs"
            label="to and fro"
            checked={mark.both === true}
            onChange={({ currentTarget }) => onChange({ ...mark, both: currentTarget.checked })}
          />
        ) : null}
        <Checkbox
          size="xs"
          label="up to a stop"
          checked={mark.stop === true}
          onChange={({ currentTarget }) => onChange({ ...mark, stop: currentTarget.checked })}
        />
      </Group>
    </>
  );
}

/** The marks over the figure. */
export function MarkPanel({ figure, onChange }: Props) {
  const { marks } = figure;
  const put = (next: Mark[]) => onChange({ ...figure, marks: next });
  return (
    <>
      <Select
        key={marks.length}
        mt={10}
        label="Add a mark"
        placeholder="which?"
        disabled={marks.length >= MOST.marks}
        data={markKinds(figure).map((value) => ({ value, label: MARK_WORDS[value] ?? value }))}
        value={null}
        onChange={(kind) => kind && put([...marks, newMark(kind, placeOfWork(figure))])}
      />
      {marks.map((mark, i) => {
        const kind = Object.keys(MARK_WORDS).find((one) => one in mark);
        const place = kind ? String((mark as Record<string, unknown>)[kind]) : '';
        const word = kind ? (MARK_WORDS[kind] ?? kind) : 'path';
        return (
          <section key={i} className={classes.piece} aria-label={word}>
            <Group justify="space-between" wrap="nowrap">
              <Text size="sm">{word}</Text>
              <Button
                size="compact-xs"
                variant="subtle"
                color="gray"
                aria-label={`Remove ${word}`}
                onClick={() => put(marks.toSpliced(i, 1))}
              >
                Remove
              </Button>
            </Group>
            {kind && figure.rig === 'body' ? (
              <Select
                size="xs"
                aria-label={`Where: ${word}`}
                allowDeselect={false}
                searchable
                data={withNow(PLACE_WORDS, place)}
                value={place}
                onChange={(next) => next && put(marks.with(i, { ...mark, [kind]: next } as typeof mark))}
              />
            ) : null}
            <Arrow mark={mark} onChange={(next) => put(marks.with(i, next))} />
          </section>
        );
      })}
    </>
  );
}
