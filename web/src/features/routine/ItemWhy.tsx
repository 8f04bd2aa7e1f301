import { Button, SegmentedControl, Text } from '@mantine/core';
import type { ItemExplanation, Swap, SwapReason } from '@yonder/core/builder';
import type { Draft } from '@yonder/core/contracts';
import { duration, nameOf, percent, reasonText, withSide } from '@yonder/core/words';
import { useState } from 'react';
import { isLine, PAUSE } from '@yonder/core/reference';
import { useReference } from '../../app/reference.tsx';
import { compute } from '../../workers/client.ts';
import type { Asked } from '../../workers/protocol.ts';
import { LevelSeen } from '../athletes/LevelSeen.tsx';
import { DrillPicture } from '../picture/DrillPicture.tsx';
import classes from './Routine.module.css';
import { useEdit } from './useEdit.ts';

interface Props {
  /** The routine the drill is in. */
  draft: Draft;
  /** The record and what was asked for. */
  asked: Asked;
  /** The line explained. */
  item: Draft['items'][number];
  /** What it serves and what to watch; undefined while that is worked out. */
  explanation: ItemExplanation | undefined;
}

const REASONS: readonly { value: SwapReason | 'any'; label: string }[] = [
  { value: 'any', label: 'any' },
  { value: 'no-kit', label: 'no kit' },
  { value: 'hurts', label: 'hurts' },
  { value: 'position', label: 'position' },
  { value: 'dislikes', label: 'dislikes' },
];

function lossText(swap: Swap, name: (id: string) => string): string {
  if (swap.lost.length === 0) return 'loses nothing';
  return `loses ${swap.lost
    .map((l) => {
      const what = withSide(name(l.restriction).toLowerCase(), l.side);
      return l.share > 0.99 ? what : `${percent(l.share)} of ${what}`;
    })
    .join('; ')}`;
}

function SwapList({ draft, asked: { subject, request }, item: own }: Omit<Props, 'explanation'>) {
  const reference = useReference();
  const edit = useEdit();
  const [reason, setReason] = useState<SwapReason | 'any' | null>(null);
  const [swaps, setSwaps] = useState<readonly Swap[] | null>(null);
  const [failed, setFailed] = useState(false);
  const index = draft.items.indexOf(own);
  const find = (why: SwapReason | 'any') => {
    setReason(why);
    setFailed(false);
    compute
      .call('swaps', subject, { request, items: draft.items, index, reason: why === 'any' ? null : why })
      .then(setSwaps, () => setFailed(true));
  };
  if (reason === null) {
    return (
      <Button variant="light" size="xs" fullWidth onClick={() => find('any')}>
        Swap for an equivalent…
      </Button>
    );
  }
  return (
    <>
      <Text size="sm" fw={650} mt={4} mb={2}>
        Does the same job; swap because of
      </Text>
      <SegmentedControl
        size="xs"
        fullWidth
        aria-label="Reason of the swap"
        data={[...REASONS]}
        value={reason}
        onChange={(value) => find(value as SwapReason | 'any')}
      />
      {failed ? <Text size="sm">The swaps could not be worked out. Try again.</Text> : null}
      <ul className={classes.swaps}>
        {swaps?.slice(0, 6).map((swap) => (
          <li key={swap.drill}>
            <button
              type="button"
              onClick={() =>
                edit.change(
                  draft.items.map((item, i) => (i === index ? { ...swap.item, id: item.id } : item)),
                )
              }
            >
              <b>{nameOf(reference, swap.drill)}</b>
              <span>
                keeps {percent(Math.min(1, swap.keeps))}, {duration(swap.seconds)}
                {swap.demandChange < 0 ? ', easier' : swap.demandChange > 0 ? ', harder' : ''};{' '}
                {lossText(swap, (id) => nameOf(reference, id))}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {swaps?.length === 0 ? (
        <Text size="sm">
          Nothing else fits this reason, kit, precautions and level. Ask “Why not” for one drill.
        </Text>
      ) : null}
    </>
  );
}

/** Why a drill is in: what it serves, its level, its dose; what to watch; and what could take its place. */
export function ItemWhy({ draft, asked, item, explanation }: Props) {
  const reference = useReference();
  const drill = reference.drills.get(item.drill);
  if (!drill) return null;
  if (isLine(item.drill))
    return (
      <Text size="sm" className={classes.whyTitle}>
        {item.drill === PAUSE
          ? 'A rest: nothing is done, and there is no changing over beside it.'
          : 'In own words: it takes its time, is shown in the run and on the handout, and no rule can be checked on it. It is yours to answer for.'}
      </Text>
    );
  const reasons = [
    ...(explanation?.cautions ?? []).map((reason) => reasonText(reference, reason)),
    ...(explanation?.reasons ?? []).map((reason) => reasonText(reference, reason)),
  ];
  return (
    <>
      <Text fw={700} size="lg" className={classes.whyTitle}>
        {drill.name}
      </Text>
      <DrillPicture drill={drill} side={item.side} />
      <ul className={classes.reasons}>
        {reasons.map((reason) => (
          <li key={reason}>{reason}</li>
        ))}
      </ul>
      {drill.level > 1 ? <LevelSeen drill={drill} side={item.side} offers={['fine', 'too-hard']} /> : null}
      <SwapList key={item.id} draft={draft} asked={asked} item={item} />
      <Text size="sm" mt={8}>
        {drill.athleteText}
      </Text>
      <Text size="sm" c="var(--muted)" mt={4}>
        Watch: {drill.cues.join('; ')}. Faults: {drill.faults.join('; ')}. Feel it: {drill.feelsLike}. Effort:{' '}
        {drill.dose.intensity}.
      </Text>
    </>
  );
}
