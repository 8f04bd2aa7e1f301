import { Button, Text } from '@mantine/core';
import type { ItemExplanation, Swap } from '@yonder/core/builder';
import type { Draft } from '@yonder/core/contracts';
import type { Case } from '@yonder/core/domain';
import { duration, nameOf, percent, reasonText, withSide } from '@yonder/core/words';
import { useState } from 'react';
import { useReference } from '../../app/reference.tsx';
import { useAppDispatch } from '../../app/store.ts';
import { WhyPanel } from '../../components/WhyPanel.tsx';
import { compute } from '../../workers/client.ts';
import { itemsChanged } from './draftSlice.ts';
import classes from './Routine.module.css';

interface Props {
  draft: Draft;
  input: Case;
  drillId: string;
  explanation: ItemExplanation | undefined;
}

function SwapList({ draft, input, drillId }: Omit<Props, 'explanation'>) {
  const reference = useReference();
  const dispatch = useAppDispatch();
  const [swaps, setSwaps] = useState<readonly Swap[] | null>(null);
  const [failed, setFailed] = useState(false);
  const index = draft.items.findIndex((item) => item.drill === drillId);
  const find = () =>
    compute.call('swaps', { case: input, items: draft.items, index }).then(setSwaps, () => setFailed(true));
  if (failed) return <Text size="sm">The swaps could not be worked out. Try again.</Text>;
  if (!swaps) {
    return (
      <Button variant="light" size="xs" fullWidth onClick={() => void find()}>
        Swap for an equivalent…
      </Button>
    );
  }
  return (
    <>
      <Text size="sm" fw={650} mt={4}>
        Does the same job
      </Text>
      <ul className={classes.swaps}>
        {swaps.slice(0, 6).map((swap) => (
          <li key={swap.drill}>
            <button
              type="button"
              onClick={() =>
                dispatch(itemsChanged(draft.items.map((item, i) => (i === index ? swap.item : item))))
              }
            >
              <b>{nameOf(reference, swap.drill)}</b>
              <span>
                keeps {percent(Math.min(1, swap.keeps))}, {duration(swap.seconds)}
                {swap.lost.length > 0
                  ? `; loses ${swap.lost.map((l) => withSide(nameOf(reference, l.restriction).toLowerCase(), l.side)).join(', ')}`
                  : ''}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {swaps.length === 0 ? <Text size="sm">Nothing else fits kit, precautions and level.</Text> : null}
    </>
  );
}

/** Why a drill is in: what it serves, its level, its dose; what to watch; and what could take its place. */
export function ItemWhy({ draft, input, drillId, explanation }: Props) {
  const reference = useReference();
  const drill = reference.drills.get(drillId);
  if (!drill) return null;
  return (
    <WhyPanel
      title={drill.name}
      reasons={[
        ...(explanation?.cautions ?? []).map((reason) => reasonText(reference, reason)),
        ...(explanation?.reasons ?? []).map((reason) => reasonText(reference, reason)),
      ]}
    >
      <Text size="sm">{drill.athleteText}</Text>
      <Text size="sm" c="var(--muted)" mt={4} mb={8}>
        Watch: {drill.cues.join('; ')}. Faults: {drill.faults.join('; ')}. Effort: {drill.dose.intensity}.
      </Text>
      <SwapList key={drillId} draft={draft} input={input} drillId={drillId} />
    </WhyPanel>
  );
}
