import { Checkbox, Select, Text } from '@mantine/core';
import { jointsOf } from '@yonder/core/figure';
import type { SolvedFigure } from '@yonder/core/figure';
import { NumberSlider } from './NumberSlider.tsx';

interface Props {
  /** What is drawn. */
  figure: SolvedFigure;
  /** Which position of it. */
  position: number;
  /** The joint that is taken. */
  joint: string;
  /** A joint was taken. */
  onJoint: (site: string) => void;
  /** Both sides are set together. */
  both: boolean;
  /** They are, or no longer. */
  onBoth: (both: boolean) => void;
  /** A number was set. */
  onSet: (place: number, value: number) => void;
}

/** The numbers of a joint, each within its range. */
export function JointPanel({ figure, position, joint, onJoint, both, onBoth, onSet }: Props) {
  const joints = jointsOf(figure);
  const taken = joints.find(({ site }) => site === joint) ?? joints[0];
  const pose = figure.poses[position] ?? [];
  if (!taken) return null;
  return (
    <>
      <Select
        label="Joint"
        allowDeselect={false}
        data={joints.map(({ site, name }) => ({ value: site, label: name }))}
        value={taken.site}
        onChange={(site) => site && onJoint(site)}
      />
      {/[LR]$/.test(taken.site) ? (
        <Checkbox
          mt={8}
          size="xs"
          label="Both sides alike"
          checked={both}
          onChange={(event) => onBoth(event.currentTarget.checked)}
        />
      ) : null}
      {taken.settings.map(({ place, label, range, degrees }) => (
        <NumberSlider
          key={place}
          label={label}
          value={pose[place] ?? 0}
          range={range}
          degrees={degrees}
          onSet={(value) => onSet(place, value)}
        />
      ))}
      <Text size="xs" c="var(--muted)" mt={8}>
        Angles of the drawing, not measurements of anybody.
      </Text>
    </>
  );
}
