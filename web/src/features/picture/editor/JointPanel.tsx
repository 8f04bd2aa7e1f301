import { Checkbox, Select, Slider, Text } from '@mantine/core';
import { jointsOf } from '@yonder/core/figure';
import type { SolvedFigure } from '@yonder/core/figure';
import classes from './Editor.module.css';

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
      <div className={classes.settings}>
        {taken.settings.map(({ place, label, range: [min, max], degrees }) => {
          const value = pose[place] ?? 0;
          return (
            <div key={`${position}/${place}/${value}`}>
              <span>
                {label}
                <b>
                  {Math.round(value * 10) / 10}
                  {degrees ? '°' : ''}
                </b>
              </span>
              <Slider
                size="sm"
                label={null}
                thumbLabel={label}
                min={min}
                max={max}
                step={max - min <= 2 ? 0.05 : 1}
                defaultValue={value}
                onChangeEnd={(next) => next !== value && onSet(place, next)}
              />
              <small>
                {min} to {max}
              </small>
            </div>
          );
        })}
      </div>
      <Text size="xs" c="var(--muted)" mt={8}>
        Angles of the drawing, not measurements of anybody.
      </Text>
    </>
  );
}
