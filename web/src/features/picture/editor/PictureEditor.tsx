import { Button, Group, SegmentedControl, Select } from '@mantine/core';
import {
  IconArrowBackUp,
  IconArrowForwardUp,
  IconCopyPlus,
  IconFlipVertical,
  IconTrash,
} from '@tabler/icons-react';
import { useStateHistory } from '@mantine/hooks';
import { mirroredFigure } from '@yonder/core/figure';
import type { Rhythm, SolvedFigure } from '@yonder/core/figure';
import { useState } from 'react';
import type { ReactNode } from 'react';
import { useReference } from '../../../app/reference.tsx';
import { Dialog } from '../../../components/Dialog.tsx';
import { MovingPicture } from '../MovingPicture.tsx';
import { Picture } from '../Picture.tsx';
import { useFetchPicture } from '../usePicture.ts';
import { Canvas } from './Canvas.tsx';
import { MOST, withCopy, withKit, withoutPose, withPose, withSetting } from './changes.ts';
import classes from './Editor.module.css';
import { JointPanel } from './JointPanel.tsx';
import { KitPanel } from './KitPanel.tsx';
import { ViewPanel } from './ViewPanel.tsx';

/** Another drill's picture to begin with. */
function StartFrom({ onPicked }: { onPicked: (figure: SolvedFigure) => void }) {
  const reference = useReference();
  const fetchPicture = useFetchPicture();
  const [missing, setMissing] = useState<string | null>(null);
  const pick = (id: string | null) => {
    const drill = id ? reference.drills.get(id) : undefined;
    if (!drill) return;
    void fetchPicture(drill).then((found) => {
      setMissing(found ? null : `${drill.name}: its picture is not there, or the server is out of reach`);
      if (found) onPicked(found);
    });
  };
  return (
    <Select
      size="xs"
      w={230}
      aria-label="Begin with the picture of"
      placeholder="begin with the picture of…"
      searchable
      limit={60}
      data={reference.data.drills
        .filter(({ archived }) => !archived)
        .map(({ id: value, name }) => ({ value, label: name }))}
      value={null}
      error={missing}
      onChange={pick}
    />
  );
}

/** One thing to do with the figure. */
function Tool({
  name,
  icon,
  off = false,
  onPress,
}: {
  name: string;
  icon?: ReactNode;
  off?: boolean;
  onPress: () => void;
}) {
  return (
    <Button size="xs" variant="default" leftSection={icon} disabled={off} onClick={onPress}>
      {name}
    </Button>
  );
}

interface PositionsProps {
  /** What is drawn. */
  figure: SolvedFigure;
  /** Which position is being drawn. */
  position: number;
  /** Another one is. */
  onPosition: (position: number) => void;
  /** The figure was changed. */
  onChange: (figure: SolvedFigure) => void;
}

/** The positions that it moves through. */
function Positions({ figure, position, onPosition, onChange }: PositionsProps) {
  return (
    <div className={classes.positions} role="group" aria-label="Positions">
      {figure.poses.map((pose, i) => (
        <button key={i} type="button" aria-pressed={i === position} onClick={() => onPosition(i)}>
          <Picture figure={figure} pose={pose} small plain />
          <span>
            Position {i + 1}
            {i === figure.shown ? ', shown' : ''}
          </span>
        </button>
      ))}
      <Group gap={4}>
        <Tool
          name="Add a position"
          icon={<IconCopyPlus size={15} />}
          off={figure.poses.length >= MOST.poses}
          onPress={() => {
            onChange(withCopy(figure, position));
            onPosition(position + 1);
          }}
        />
        <Tool
          name="Let it stand for the drill"
          off={position === figure.shown}
          onPress={() => onChange({ ...figure, shown: position })}
        />
        <Tool
          name="Remove it"
          icon={<IconTrash size={15} />}
          off={figure.poses.length < 2}
          onPress={() => onChange(withoutPose(figure, position))}
        />
      </Group>
    </div>
  );
}

interface Props {
  /** The picture it begins with. */
  initial: SolvedFigure;
  /** How it moves in the preview. */
  rhythm: Rhythm;
  /** It was changed. */
  onChange: (figure: SolvedFigure) => void;
  /** It was closed. */
  onClose: () => void;
}

/** Draws a picture by hand: joints, positions, kit, view and marks, with every step to take back. */
export function PictureEditor({ initial, rhythm, onChange, onClose }: Props) {
  const [figure, { set, back, forward }, history] = useStateHistory(initial);
  const [key, setKey] = useState(initial.shown);
  const [joint, setJoint] = useState('kneeL');
  const [both, setBoth] = useState(false);
  const [panel, setPanel] = useState('joints');
  const position = Math.min(key, figure.poses.length - 1);
  const change = (next: SolvedFigure) => {
    set(next);
    onChange(next);
  };
  const step = (go: () => void, to: number) => {
    go();
    const there = history.history[to];
    if (there) onChange(there);
  };
  return (
    <Dialog onClose={onClose} title="Draw the drill" fullScreen>
      <div className={classes.bar}>
        <StartFrom
          onPicked={(next) => {
            change(next);
            setKey(next.shown);
          }}
        />
        <Group gap={4}>
          <Tool
            name="Undo"
            icon={<IconArrowBackUp size={15} />}
            off={history.current === 0}
            onPress={() => step(back, history.current - 1)}
          />
          <Tool
            name="Redo"
            icon={<IconArrowForwardUp size={15} />}
            off={history.current >= history.history.length - 1}
            onPress={() => step(forward, history.current + 1)}
          />
          <Tool
            name="Exchange sides"
            icon={<IconFlipVertical size={15} />}
            onPress={() => change(mirroredFigure(figure))}
          />
        </Group>
        <Button size="xs" onClick={onClose}>
          Done
        </Button>
      </div>
      <div className={classes.editor}>
        <div>
          <Canvas
            key={position}
            figure={figure}
            position={position}
            joint={joint}
            onJoint={setJoint}
            onPose={(pose) => change(withPose(figure, position, pose))}
            onKit={(kit) => change(withKit(figure, kit))}
          />
          <Positions figure={figure} position={position} onPosition={setKey} onChange={change} />
        </div>
        <div className={classes.side}>
          <SegmentedControl
            fullWidth
            size="xs"
            aria-label="What is changed"
            data={[
              { value: 'joints', label: 'Joints' },
              { value: 'kit', label: 'Kit' },
              { value: 'view', label: 'View and marks' },
            ]}
            value={panel}
            onChange={setPanel}
          />
          <div className={classes.panel}>
            {panel === 'joints' ? (
              <JointPanel
                figure={figure}
                position={position}
                joint={joint}
                onJoint={setJoint}
                both={both}
                onBoth={setBoth}
                onSet={(place, value) => change(withSetting(figure, position, place, value, both))}
              />
            ) : panel === 'kit' ? (
              <KitPanel figure={figure} onChange={change} />
            ) : (
              <ViewPanel figure={figure} onChange={change} />
            )}
          </div>
        </div>
        <div className={classes.preview}>
          <b>As it will be seen</b>
          <MovingPicture figure={figure} label="The drill as it is drawn" rhythm={rhythm} sided />
        </div>
      </div>
    </Dialog>
  );
}
