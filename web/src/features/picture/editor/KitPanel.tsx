import { Button, Group, NumberInput, Select, Text } from '@mantine/core';
import { KIT_KINDS, kitWay } from '@yonder/core/figure';
import type { Kit, SolvedFigure } from '@yonder/core/figure';
import { MOST, newKit, withKit } from './changes.ts';
import classes from './Editor.module.css';
import { KIT_WORDS, PLACE_WORDS, placeWord } from './words.ts';

const POINT = 'a point in the room';
const PLACES = [{ value: POINT, label: POINT }, ...PLACE_WORDS.map(([value, label]) => ({ value, label }))];
const AXES = ['forwards', 'up', 'to the right'] as const;
type Point = [number, number, number];

/** Where something is in the room, in hundredths of the body's height. */
function PointInput({ name, value, onChange }: { name: string; value: Point; onChange: (p: Point) => void }) {
  return (
    <Group gap={4} wrap="nowrap" grow>
      {AXES.map((axis, i) => (
        <NumberInput
          key={axis}
          size="xs"
          aria-label={`${name}, ${axis}`}
          description={axis}
          min={-300}
          max={300}
          value={value[i] ?? 0}
          onChange={(next) => typeof next === 'number' && onChange(value.with(i, next) as Point)}
        />
      ))}
    </Group>
  );
}

function Strung({ kit, onChange }: { kit: Kit; onChange: (kit: Kit) => void }) {
  const ends = kit.through ?? [];
  const put = (i: number, where: string | Point) => onChange({ ...kit, through: ends.with(i, where) });
  return ends.map((where, i) => (
    <div key={i}>
      <Select
        size="xs"
        label={i === 0 ? 'From' : i === ends.length - 1 ? 'To' : 'Round'}
        allowDeselect={false}
        searchable
        data={
          typeof where === 'string' && !PLACES.some(({ value }) => value === where)
            ? [...PLACES, { value: where, label: placeWord(where) }]
            : PLACES
        }
        value={typeof where === 'string' ? where : POINT}
        onChange={(next) => next && put(i, next === POINT ? [40, 20, 0] : next)}
      />
      {typeof where === 'string' ? null : (
        <PointInput
          name={`${KIT_WORDS[kit.type]}, ${i === 0 ? 'from' : 'to'}`}
          value={where}
          onChange={(next) => put(i, next)}
        />
      )}
    </div>
  ));
}

function Where({ kit, onChange }: { kit: Kit; onChange: (kit: Kit) => void }) {
  const way = kitWay(kit);
  if (way === 'held')
    return (
      <Select
        size="xs"
        label="Hand"
        allowDeselect={false}
        data={[
          { value: 'L', label: 'left' },
          { value: 'R', label: 'right' },
          { value: 'both', label: 'both' },
        ]}
        value={kit.side ?? 'L'}
        onChange={(side) => onChange({ ...kit, side: side as 'L' })}
      />
    );
  if (way === 'strung') return <Strung kit={kit} onChange={onChange} />;
  return (
    <>
      {kit.type === 'wall' ? (
        <Select
          size="xs"
          label="Side of the body"
          allowDeselect={false}
          data={['front', 'back', 'left', 'right']}
          value={kit.face ?? 'front'}
          onChange={(face) => onChange({ ...kit, face: face as 'front' })}
        />
      ) : null}
      {typeof kit.at === 'string' ? (
        <Select
          size="xs"
          label="At"
          allowDeselect={false}
          data={PLACES.slice(1)}
          value={kit.at}
          onChange={(at) => at && onChange({ ...kit, at })}
        />
      ) : (
        <PointInput
          name={KIT_WORDS[kit.type]}
          value={kit.at ?? [0, 0, 0]}
          onChange={(at) => onChange({ ...kit, at })}
        />
      )}
    </>
  );
}

interface Props {
  /** What is drawn. */
  figure: SolvedFigure;
  /** It was changed. */
  onChange: (figure: SolvedFigure) => void;
}

/** What is in the room and in the hands. */
export function KitPanel({ figure, onChange }: Props) {
  const { kit } = figure;
  return (
    <>
      <Select
        key={kit.length}
        label="Add kit"
        placeholder="what?"
        searchable
        disabled={kit.length >= MOST.kit}
        data={KIT_KINDS.map((value) => ({ value, label: KIT_WORDS[value] }))}
        value={null}
        onChange={(type) => type && onChange(withKit(figure, [...kit, newKit(type as Kit['type'])]))}
      />
      {kit.map((one, i) => (
        <section key={i} className={classes.piece} aria-label={KIT_WORDS[one.type]}>
          <Group justify="space-between">
            <b>{KIT_WORDS[one.type]}</b>
            <Button
              size="compact-xs"
              variant="subtle"
              color="gray"
              aria-label={`Remove ${KIT_WORDS[one.type]}`}
              onClick={() => onChange(withKit(figure, kit.toSpliced(i, 1)))}
            >
              Remove
            </Button>
          </Group>
          <Where kit={one} onChange={(next) => onChange(withKit(figure, kit.with(i, next)))} />
        </section>
      ))}
      <Text size="xs" c="var(--muted)" mt={8}>
        Drawn by its square in the picture, or set here in hundredths of the body’s height. A hand, foot, knee
        or elbow drawn near a top, a wall or the floor snaps onto it.
      </Text>
    </>
  );
}
