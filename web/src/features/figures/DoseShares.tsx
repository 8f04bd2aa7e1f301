import { Button, Group, SegmentedControl, Table, Text, Title } from '@mantine/core';
import { MODES } from '@yonder/core/domain';
import type { DoseShare, Mode } from '@yonder/core/domain';
import type { DoseCell } from '@yonder/core/reference';
import { CATEGORY_LABEL, MODE_LABEL } from '@yonder/core/words';
import { useState } from 'react';
import { Allowed, Locked } from '../../app/Allowed.tsx';
import { Refusal } from '../../components/Refusal.tsx';
import { useBundledReference } from '../../app/reference.tsx';
import { UnitInput } from '../../components/UnitInput.tsx';
import { useFiguresQuery, useSetDoseSharesMutation } from './figureEndpoints.ts';
import classes from './Figures.module.css';

type Kind = DoseShare['of'];
type Typed = Record<string, { low: number | null; high: number | null }>;

const KIND_LABEL: Readonly<Record<Kind, string>> = { hold: 'holds', reps: 'repetitions' };
const keyOf = (share: Pick<DoseShare, 'category' | 'mode' | 'of'>) =>
  `${share.category}/${share.mode}/${share.of}`;

function shipped(cell: DoseCell, of: Kind) {
  return of === 'hold' ? cell.holdShareOfMax : cell.repShareOfMax;
}

/** Everything wrong with a typed pair, in words; null when it may be saved. */
function faultOf({ low, high }: { low: number | null; high: number | null }): string | null {
  if (low === null || high === null || low < 5 || high > 100) return 'between 5 and 100 %';
  return low > high ? 'the upper lies below the lower' : null;
}

/** The practice's own shares of a tested maximum: how near to failure each mode goes. */
export function DoseShares() {
  const bundled = useBundledReference();
  const { data } = useFiguresQuery();
  const [save, { isLoading, error, isSuccess }] = useSetDoseSharesMutation();
  const [mode, setMode] = useState<Mode>('prepare');
  const [typed, setTyped] = useState<Typed>({});
  if (!data) return null;
  const own = new Map(data.doseShares.map((share) => [keyOf(share), share]));
  const rows = bundled.data.doseModes.cells
    .filter((cell) => cell.mode === mode)
    .flatMap((cell) =>
      (['hold', 'reps'] as const).flatMap((of) => {
        const usual = shipped(cell, of);
        if (!usual) return [];
        const key = keyOf({ category: cell.category, mode, of });
        const set = own.get(key);
        const now = typed[key] ?? { low: 100 * (set ?? usual).low, high: 100 * (set ?? usual).high };
        return [{ key, cell, of, usual, set, now }];
      }),
    );
  const faults = Object.values(typed).map(faultOf).filter(Boolean);
  const put = (doseShares: DoseShare[]) =>
    save({ doseShares, version: data.version })
      .unwrap()
      .then(
        () => setTyped({}),
        () => undefined, // shown below
      );
  const keep = () => {
    const next = new Map(own);
    for (const [key, { low, high }] of Object.entries(typed)) {
      const [category, m, of] = key.split('/') as [DoseShare['category'], Mode, Kind];
      next.set(key, { category, mode: m, of, low: (low ?? 0) / 100, high: (high ?? 0) / 100 });
    }
    void put([...next.values()]);
  };
  return (
    <section className={`card ${classes.card}`} aria-labelledby="dose-title">
      <Title order={2} size={20} id="dose-title">
        Shares of the tested maximum
      </Title>
      <Text size="sm" c="var(--muted)" mb="xs">
        A dose is taken from what was measured: prepare uses the top of its range, build the middle, restore
        the bottom. Conventions, low confidence; yours go in their place.
      </Text>
      <SegmentedControl
        size="xs"
        aria-label="Mode of the shares"
        value={mode}
        onChange={(m) => setMode(m as Mode)}
        data={MODES.map((m) => ({ value: m, label: MODE_LABEL[m] }))}
      />
      <Locked least="owner">
        <Table verticalSpacing={4} mt={8} maw={640}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Kind of drill</Table.Th>
              <Table.Th>Lower</Table.Th>
              <Table.Th>Upper</Table.Th>
              <Table.Th>Shipped</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {rows.map(({ key, cell, of, usual, set, now }) => (
              <Table.Tr key={key}>
                <Table.Th scope="row">
                  {CATEGORY_LABEL[cell.category]}, {KIND_LABEL[of]}{' '}
                  {set ? <span className={classes.edited}>edited</span> : null}
                </Table.Th>
                {(['low', 'high'] as const).map((end) => (
                  <Table.Td key={end}>
                    <UnitInput
                      size="xs"
                      w={90}
                      unit="%"
                      step={5}
                      min={5}
                      max={100}
                      aria-label={`${CATEGORY_LABEL[cell.category]}, ${KIND_LABEL[of]}, ${end === 'low' ? 'lower' : 'upper'}`}
                      value={Math.round(now[end] ?? 0) || null}
                      error={typed[key] && end === 'high' ? faultOf(now) : null}
                      onChange={(value) => setTyped({ ...typed, [key]: { ...now, [end]: value } })}
                    />
                  </Table.Td>
                ))}
                <Table.Td className="muted">
                  {Math.round(usual.low * 100)}–{Math.round(usual.high * 100)} %
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Locked>
      <Allowed least="owner">
        <Group gap="xs" mt={8}>
          <Button
            loading={isLoading}
            disabled={Object.keys(typed).length === 0 || faults.length > 0}
            onClick={keep}
          >
            Save shares
          </Button>
          {data.doseShares.length > 0 ? (
            <Button variant="light" onClick={() => void put([])}>
              Set all back
            </Button>
          ) : null}
          <Text size="sm" role="status">
            {isSuccess && Object.keys(typed).length === 0 ? 'Saved. ' : ''}
            {data.doseShares.length > 0
              ? `${data.doseShares.length} of your own.`
              : 'The shipped shares hold.'}
          </Text>
        </Group>
      </Allowed>
      <Refusal error={error} mt={6} />
    </section>
  );
}
