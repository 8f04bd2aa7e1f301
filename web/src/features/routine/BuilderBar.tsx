import { Button, Chip, Group, Loader, Popover, SegmentedControl, Select, Text } from '@mantine/core';
import type { BuildRequest, Mode } from '@yonder/core/domain';
import { MODES, usualMinutes } from '@yonder/core/domain';
import { kitWords } from '@yonder/core/formats';
import { MODE_LABEL, number } from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';
import { UnitInput } from '../../components/UnitInput.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { LimitsPicker } from './LimitsPicker.tsx';
import type { Asked } from '../../workers/protocol.ts';
import classes from './Routine.module.css';
import { RoutineMethods } from './RoutineMethods.tsx';
import type { BuildState } from './useBuilder.ts';

interface Props {
  /** The record and what is asked for. */
  asked: Asked;
  /** Something else is asked for. */
  onChange: (change: Partial<BuildRequest>) => void;
  /** Idle, solving with the best so far, done or failed. */
  state: BuildState;
  /** Build now. */
  onBuild: () => void;
  /** Stop the solve. */
  onCancel: () => void;
  /** True when a draft is there: building again replaces its items (undo brings them back). */
  again: boolean;
}

function KitPicker({ request, onChange }: { request: BuildRequest; onChange: Props['onChange'] }) {
  const words = [...kitWords(useReference())].sort();
  const { athlete } = useWorkspace();
  const place = athlete.places.find((p) => [...p.kit].sort().join() === [...request.kit].sort().join());
  return (
    <Popover width={380} position="bottom" withArrow trapFocus>
      <Popover.Target>
        <Button variant="default" size="xs">
          Kit{place ? ` (${place.name})` : ''}: {request.kit.length === 0 ? 'none' : request.kit.length}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        {athlete.places.length > 0 ? (
          <Group gap={6} mb={8}>
            {[{ name: 'usual', kit: athlete.kit }, ...athlete.places].map((p) => (
              <Button key={p.name} size="compact-xs" variant="light" onClick={() => onChange({ kit: p.kit })}>
                {p.name}
              </Button>
            ))}
          </Group>
        ) : null}
        <Chip.Group multiple value={request.kit} onChange={(kit) => onChange({ kit })}>
          <Group gap={5}>
            {words.map((word) => (
              <Chip key={word} value={word} size="xs">
                {word.replaceAll('-', ' ')}
              </Chip>
            ))}
          </Group>
        </Chip.Group>
      </Popover.Dropdown>
    </Popover>
  );
}

/** A gap is worth showing once it means something to a person; before that the answer is just the first. */
const LARGEST_GAP_SHOWN = 1;

function Progress({ state }: { state: BuildState }) {
  if (state.kind === 'failed') {
    return (
      <Text size="sm" c="var(--danger)" role="alert">
        Could not build: {state.message}
      </Text>
    );
  }
  if (state.kind === 'solving') {
    const gap = state.interim?.report.routine?.gap;
    const known = gap !== undefined && gap < LARGEST_GAP_SHOWN;
    return (
      <Text size="sm" role="status">
        <Loader size={12} mr={6} />
        {state.interim
          ? known
            ? `good answer, at most ${number(gap * 100, 1)} % to gain; proving…`
            : 'first answer, improving…'
          : 'looking for drills…'}
      </Text>
    );
  }
  return null;
}

/** What the routine is for and within what limits; building goes on in the background and can be cancelled. */
export function BuilderBar({ asked, onChange, state, onBuild, onCancel, again }: Props) {
  const { request } = asked;
  const reference = useReference();
  const { athlete } = useWorkspace();
  return (
    <Group className={`card ${classes.builder}`} gap={8}>
      <SegmentedControl
        size="xs"
        aria-label="Mode"
        value={request.mode}
        onChange={(mode) =>
          onChange({
            mode: mode as Mode,
            structure: null,
            minutes: usualMinutes(athlete, mode as Mode),
          })
        }
        data={MODES.map((mode) => ({ value: mode, label: MODE_LABEL[mode] }))}
      />
      <UnitInput
        size="xs"
        w={84}
        aria-label="Minutes"
        unit="min"
        min={1}
        max={120}
        value={request.minutes}
        onChange={(minutes) => onChange({ minutes: minutes !== null && minutes > 0 ? minutes : null })}
      />
      <Select
        size="xs"
        w={132}
        aria-label="Action of the day"
        placeholder="any action"
        clearable
        data={reference.data.patterns.map(({ id, name }) => ({ value: id, label: name }))}
        value={request.pattern}
        onChange={(pattern) => onChange({ pattern })}
      />
      <KitPicker request={request} onChange={onChange} />
      <LimitsPicker request={request} onChange={onChange} />
      <RoutineMethods asked={asked} onChange={onChange} />
      {state.kind === 'solving' ? (
        <Button size="xs" variant="outline" onClick={onCancel}>
          Cancel
        </Button>
      ) : (
        <Button size="xs" onClick={onBuild}>
          {again ? 'Choose again' : 'Choose drills'}
        </Button>
      )}
      <Progress state={state} />
    </Group>
  );
}
