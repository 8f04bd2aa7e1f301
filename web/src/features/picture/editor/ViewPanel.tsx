import { Chip, Group, Select, Text } from '@mantine/core';
import { FRAME_NAMES, PARTS, VIEWS } from '@yonder/core/figure';
import type { SolvedFigure } from '@yonder/core/figure';
import { MarkPanel } from './MarkPanel.tsx';
import { NumberSlider } from './NumberSlider.tsx';
import { FRAME_WORDS, PART_WORDS, VIEW_WORDS } from './words.ts';

interface Props {
  /** What is drawn. */
  figure: SolvedFigure;
  /** It was changed. */
  onChange: (figure: SolvedFigure) => void;
}

const TURNS = [
  ['az', 'Turned round', [-180, 180]],
  ['el', 'From above', [-10, 80]],
] as const;

/** From where it is looked at, what works, and the marks over it. */
export function ViewPanel({ figure, onChange }: Props) {
  const { view, accent, frame } = figure;
  const framed = frame.length === 1 ? FRAME_NAMES.find((name) => name === frame[0]) : undefined;
  const named = VIEW_WORDS.find(([name]) => VIEWS[name]?.az === view.az && VIEWS[name]?.el === view.el);
  return (
    <>
      <Select
        label="Seen from"
        data={VIEW_WORDS.map(([value, label]) => ({ value, label }))}
        placeholder="turned by hand"
        value={named?.[0] ?? null}
        onChange={(name) => {
          const next = name ? VIEWS[name] : undefined;
          if (next) onChange({ ...figure, view: { ...next } });
        }}
      />
      {TURNS.map(([axis, label, range]) => (
        <NumberSlider
          key={axis}
          label={label}
          value={view[axis]}
          range={range}
          degrees
          onSet={(value) => onChange({ ...figure, view: { ...view, [axis]: value } })}
        />
      ))}
      {figure.rig === 'body' ? (
        <Select
          mt={8}
          label="In the picture"
          allowDeselect={false}
          data={[
            ...FRAME_NAMES.map((value) => ({ value, label: FRAME_WORDS[value] ?? value })),
            ...(framed ? [] : [{ value: 'own', label: 'as it is' }]),
          ]}
          value={framed ?? 'own'}
          onChange={(next) => next && next !== 'own' && onChange({ ...figure, frame: [next] })}
        />
      ) : null}
      <Text size="sm" fw={500} mt={10} mb={4}>
        Works
      </Text>
      <Chip.Group
        multiple
        value={accent}
        onChange={(next) => onChange({ ...figure, accent: PARTS.filter((part) => next.includes(part)) })}
      >
        <Group gap={5}>
          {PARTS.map((part) => (
            <Chip key={part} value={part} size="xs">
              {PART_WORDS[part]}
            </Chip>
          ))}
        </Group>
      </Chip.Group>
      <MarkPanel figure={figure} onChange={onChange} />
    </>
  );
}
