import { gateTopics, regionsInPlay, topicsDue } from '@yonder/core/safety';
import type { GateTopic, RegionInPlay } from '@yonder/core/safety';
import type { Region } from '@yonder/core/domain';
import type { GateAnswerRow } from '@yonder/core/contracts';
import { useMemo } from 'react';
import { useReference } from '../../app/reference.tsx';
import { today } from '../../app/today.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';

/** Where the gate of an athlete stands. */
export interface Gate {
  /** Everything asked of this athlete: general groups, then the regions in play and those asked for. */
  readonly topics: readonly GateTopic[];
  /** What has to be asked before work on these regions. */
  readonly due: readonly GateTopic[];
  readonly inPlay: readonly RegionInPlay[];
  /** Newest answer to a topic. */
  readonly answers: ReadonlyMap<string, GateAnswerRow>;
  /** Day of the newest answer to anything; null before the first. */
  readonly last: string | null;
  /** "Anything new?" was not asked today. */
  readonly visitDue: boolean;
}

/** Topics of the regions in play and of `regions`, with what was said and what is due as of the working date. */
export function useGate(regions: readonly Region[] = []): Gate {
  const reference = useReference();
  const { athlete, case: input, on } = useWorkspace();
  const wanted = regions.join();
  return useMemo(() => {
    const inPlay = regionsInPlay(reference, input.athlete, on);
    const asking = [...inPlay.map((one) => one.region), ...(wanted ? (wanted.split(',') as Region[]) : [])];
    const answers = new Map<string, GateAnswerRow>();
    for (const answer of athlete.asked)
      if ((answers.get(answer.topic)?.on ?? '') <= answer.on) answers.set(answer.topic, answer);
    const days = athlete.asked.map((answer) => answer.on).sort();
    const last = days.at(-1) ?? null;
    return {
      topics: gateTopics(reference, asking, athlete.birthDate, on),
      due: topicsDue(reference, input.athlete, asking, on),
      inPlay,
      answers,
      last,
      visitDue: last !== today(),
    };
  }, [reference, athlete, input, on, wanted]);
}
