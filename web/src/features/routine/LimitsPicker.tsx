import { Button, Chip, Group, MultiSelect, Popover, Select, Stack, Switch, Text } from '@mantine/core';
import { FATIGUE_CAP } from '@yonder/core/builder';
import { REGIONS } from '@yonder/core/domain';
import type { BuildRequest } from '@yonder/core/domain';
import { REGION_LABEL } from '@yonder/core/words';
import { useReference } from '../../app/reference.tsx';
import { UnitInput } from '../../components/UnitInput.tsx';

interface Props {
  /** What is asked for. */
  request: BuildRequest;
  /** Other limits. */
  onChange: (change: Partial<BuildRequest>) => void;
}

/** Where the ground is wet: only these are left (reference, "Drills"). */
const DRY_POSITIONS = ['standing', 'single-leg-standing', 'seated', 'half-kneeling', 'moving'];
const LYING = ['supine', 'prone', 'side-lying'];

const same = (a: readonly string[], b: readonly string[]) => [...a].sort().join() === [...b].sort().join();

function Positions({ request, onChange }: Props) {
  const all = [...new Set(useReference().data.drills.map((drill) => drill.position))].sort();
  const wet = all.filter((position) => !DRY_POSITIONS.includes(position));
  const sets: [string, string[]][] = [
    ['anywhere', []],
    ['nothing lying', LYING],
    ['wet ground', wet],
  ];
  return (
    <div>
      <Text size="sm" fw={600} mb={4}>
        Positions that are out
      </Text>
      <Group gap={6} mb={6}>
        {sets.map(([label, positions]) => (
          <Button
            key={label}
            size="compact-xs"
            variant={same(request.excludePositions, positions) ? 'filled' : 'light'}
            onClick={() => onChange({ excludePositions: positions })}
          >
            {label}
          </Button>
        ))}
      </Group>
      <Chip.Group
        multiple
        value={request.excludePositions}
        onChange={(excludePositions) => onChange({ excludePositions })}
      >
        <Group gap={5}>
          {all.map((position) => (
            <Chip key={position} value={position} size="xs">
              {position.replaceAll('-', ' ')}
            </Chip>
          ))}
        </Group>
      </Chip.Group>
    </div>
  );
}

function limitsInForce(request: BuildRequest): number {
  return [
    request.structure !== null,
    request.maxDrills !== null,
    request.fatigueCap !== null,
    request.excludePositions.length > 0,
    request.focus.length > 0,
    request.space !== null,
    request.partner,
    request.pins.length > 0,
    request.bans.length > 0,
    request.prefer.length > 0,
  ].filter(Boolean).length;
}

/** Structure, most drills, fatigue, positions, pins and bans; the button says how many are set. */
export function LimitsPicker({ request, onChange }: Props) {
  const reference = useReference();
  const drills = reference.data.drills
    .filter((drill) => !drill.archived)
    .map((drill) => ({ value: drill.id, label: drill.name }));
  const structures = reference.data.doseModes.modes.find((m) => m.id === request.mode)?.structures ?? [];
  const set = limitsInForce(request);
  return (
    <Popover width={430} position="bottom" withArrow trapFocus>
      <Popover.Target>
        <Button variant="default" size="xs">
          Limits{set > 0 ? `: ${set}` : ''}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <Stack gap={10}>
          <Select
            size="xs"
            label="Structure"
            placeholder="usual structure"
            clearable
            comboboxProps={{ withinPortal: false }}
            data={structures.map((id) => ({ value: id, label: reference.structures.get(id)?.name ?? id }))}
            value={request.structure}
            onChange={(structure) => onChange({ structure })}
          />
          <Group grow gap={8}>
            <UnitInput
              size="xs"
              label="Most drills"
              placeholder="usual"
              unit="drills"
              min={1}
              max={30}
              value={request.maxDrills}
              onChange={(most) => onChange({ maxDrills: most !== null && most > 0 ? most : null })}
            />
            <UnitInput
              size="xs"
              label="Fatigue cap"
              placeholder={`usual ${FATIGUE_CAP[request.mode]}`}
              unit="points"
              min={0}
              max={100}
              value={request.fatigueCap}
              onChange={(fatigueCap) => onChange({ fatigueCap })}
            />
          </Group>
          <MultiSelect
            size="xs"
            label="Joints to look after today"
            description="Everything else that is short waits, and is named"
            placeholder={request.focus.length === 0 ? 'as the findings ask' : ''}
            comboboxProps={{ withinPortal: false }}
            data={REGIONS.filter((r) => r !== 'whole-body').map((r) => ({
              value: r,
              label: REGION_LABEL[r],
            }))}
            value={request.focus}
            onChange={(focus) => onChange({ focus: focus as BuildRequest['focus'] })}
          />
          <Group grow gap={8} align="flex-end">
            <Select
              size="xs"
              label="Room"
              placeholder="as the drills need"
              clearable
              comboboxProps={{ withinPortal: false }}
              data={[
                { value: 'mat', label: 'a mat, nothing to run' },
                { value: 'lane', label: 'a lane' },
              ]}
              value={request.space}
              onChange={(space) => onChange({ space: space as BuildRequest['space'] })}
            />
            <Switch
              size="xs"
              mb={6}
              label="Somebody is there to help"
              checked={request.partner}
              onChange={({ currentTarget: { checked } }) => onChange({ partner: checked })}
            />
          </Group>
          <Positions request={request} onChange={onChange} />
          <MultiSelect
            size="xs"
            label="Pinned drills"
            description="Must be in; if they cannot, the build says which rules clash"
            searchable
            limit={30}
            comboboxProps={{ withinPortal: false }}
            data={drills}
            value={request.pins}
            onChange={(pins) => onChange({ pins })}
          />
          <MultiSelect
            size="xs"
            label="Banned drills"
            searchable
            limit={30}
            comboboxProps={{ withinPortal: false }}
            data={drills}
            value={request.bans}
            onChange={(bans) => onChange({ bans })}
          />
          {request.prefer.length > 0 ? (
            <Group justify="space-between" wrap="nowrap">
              <Text size="sm">
                Keeps {request.prefer.length} drills of what it started from, where they fit.
              </Text>
              <Button size="compact-xs" variant="light" onClick={() => onChange({ prefer: [] })}>
                Forget
              </Button>
            </Group>
          ) : null}
        </Stack>
      </Popover.Dropdown>
    </Popover>
  );
}
