import { Button, Group, List, SegmentedControl, Select, TextInput } from '@mantine/core';
import { Refusal } from '../../components/Refusal.tsx';
import { Dialog } from '../../components/Dialog.tsx';
import type { Region, Side } from '@yonder/core/domain';
import { nameOf, REGION_LABEL, SIDE_LABEL } from '@yonder/core/words';
import { useKeptState } from '../../app/kept/useKept.ts';
import { useReference } from '../../app/reference.tsx';
import { useAddJudgementMutation } from '../athletes/saidEndpoints.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';

const DEGREES = [
  { value: 'slight', label: 'slight' },
  { value: 'clear', label: 'clear' },
  { value: 'marked', label: 'marked' },
];

interface Props {
  /** Region whose restrictions come first. */
  region: Region;
  /** Added, or given up. */
  onClose: () => void;
}

/** Adds a restriction that was seen, not measured; it holds until it is measured. */
export function SeenByEye({ region, onClose }: Props) {
  const reference = useReference();
  const { athlete } = useWorkspace();
  const [add, { isLoading, error }] = useAddJudgementMutation();
  const typed = useKeptState(`seen/${athlete.id}`, 'A restriction seen by eye', {
    restriction: null as string | null,
    side: 'left' as Side,
    degree: 'clear',
    reason: '',
  });
  const { restriction, side, degree, reason } = typed.value;
  const set = (part: Partial<typeof typed.value>) => typed.set({ ...typed.value, ...part });
  const entry = reference.restrictions.get(restriction ?? '');
  const sides: Side[] =
    entry?.laterality === 'central'
      ? ['central']
      : entry?.laterality === 'either'
        ? ['left', 'right', 'central']
        : ['left', 'right'];
  const shownSide = sides.includes(side) ? side : (sides[0] ?? 'left');
  const groups = reference.data.regions
    .map((r) => ({
      group: REGION_LABEL[r.id],
      own: r.id === region,
      items: reference.data.restrictions
        .filter((x) => x.region === r.id)
        .map((x) => ({ value: x.id, label: x.name })),
    }))
    .sort((a, b) => Number(b.own) - Number(a.own))
    .map(({ group, items }) => ({ group, items }));
  const save = () =>
    add({
      athleteId: athlete.id,
      body: { restriction, side: shownSide, verdict: 'seen', degree, reason: reason.trim() },
    })
      .unwrap()
      .then(
        () => {
          typed.done();
          onClose();
        },
        () => undefined,
      );
  return (
    <Dialog
      onClose={onClose}
      title="A restriction seen by eye"
      centered
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      <Select
        label="Which restriction"
        searchable
        data={groups}
        value={restriction}
        onChange={(next) => set({ restriction: next })}
      />
      {entry?.observableSigns ? (
        <List size="sm" mt={6}>
          {entry.observableSigns.map((sign) => (
            <List.Item key={sign}>{sign}</List.Item>
          ))}
        </List>
      ) : null}
      <Group mt="sm" gap="sm">
        <SegmentedControl
          aria-label="Side"
          data={sides.map((s) => ({ value: s, label: SIDE_LABEL[s] }))}
          value={shownSide}
          onChange={(value) => set({ side: value as Side })}
        />
        <SegmentedControl
          aria-label="Degree"
          data={DEGREES}
          value={degree}
          onChange={(next) => set({ degree: next })}
        />
      </Group>
      <TextInput
        mt="sm"
        label="What you saw"
        value={reason}
        maxLength={2000}
        onChange={(e) => set({ reason: e.currentTarget.value })}
      />
      <Refusal error={error} mt="sm" />
      <Group mt="md" justify="flex-end">
        <Button variant="subtle" onClick={onClose}>
          Cancel
        </Button>
        <Button loading={isLoading} disabled={!restriction} onClick={() => void save()}>
          Add {restriction ? nameOf(reference, restriction).toLowerCase() : 'restriction'}
        </Button>
      </Group>
    </Dialog>
  );
}
