import type { RoutineItem } from '@yonder/core/domain';
import { TIMING } from '@yonder/core/dose';
import type { Segment } from '@yonder/core/dose';
import { repetition, secondsLeft } from '@yonder/core/session';
import { isLine, isOwnWords, PAUSE } from '@yonder/core/reference';
import type { Drill, Reference } from '@yonder/core/reference';
import { circuitText, duration, lineName, setupText, SIDE_LABEL, SIDE_MARK } from '@yonder/core/words';
import { useInterval } from '@mantine/hooks';
import { useState } from 'react';
import { useReference } from '../../app/reference.tsx';
import classes from './Run.module.css';
import { RunPicture } from './RunPicture.tsx';
import type { Run } from './useRun.ts';

function headline(segment: Segment, drill: Drill | undefined, item: RoutineItem | undefined): string {
  if (drill?.id === PAUSE) return 'Rest';
  if (drill && isOwnWords(drill.id) && segment.kind === 'work')
    return item?.ledBy ? `With ${item.ledBy}` : 'Go';
  switch (segment.kind) {
    case 'changeover':
      return 'Next';
    case 'floor-change':
      return 'Change position';
    case 'setup':
      return 'Get ready';
    case 'switch':
      return `Switch to the ${SIDE_LABEL[segment.side]} side`;
    case 'rest':
      return 'Rest';
    case 'work':
      if (segment.otherWay) return 'Other way round';
      return drill?.dose.measure === 'hold-seconds' ? 'Hold' : 'Go';
  }
}

/** Reps and contacts are counted, holds and everything else counted down. */
function BigNumber({
  segment,
  elapsed,
  drill,
}: {
  segment: Segment;
  elapsed: number;
  drill: Drill | undefined;
}) {
  const left = Math.max(0, Math.ceil(segment.seconds - elapsed));
  const counted =
    segment.kind === 'work' &&
    segment.amount !== null &&
    (drill?.dose.measure === 'reps' || drill?.dose.measure === 'contacts');
  if (!counted) {
    return (
      <div className={classes.big} role="timer" aria-label="Seconds left">
        {left}
        <span>s</span>
      </div>
    );
  }
  return (
    <div className={classes.big} role="timer" aria-label="Repetition">
      {repetition(segment, elapsed)}
      <span>of {segment.amount}</span>
    </div>
  );
}

function holdNote(segment: Segment, item: RoutineItem | undefined, elapsed: number): string {
  if (segment.kind !== 'work' || !segment.secondsPerRep || item?.measure !== 'reps') return '';
  const within = elapsed % segment.secondsPerRep;
  if (item.holdBreaths) {
    const breath = Math.floor(within / TIMING.breath) + 1;
    return breath <= item.holdBreaths ? `breath ${breath} of ${item.holdBreaths}` : 'release';
  }
  if (!item.holdSeconds) return '';
  return within < item.holdSeconds ? `hold ${Math.ceil(item.holdSeconds - within)} s` : 'release';
}

/** Which set, or which round of a circuit; how far a range goes, and what else is said of the dose. */
function setNote(segment: Segment, item: RoutineItem | undefined): string {
  if (!segment.set || !item || (isLine(item.drill) && segment.sets < 2)) return ' ';
  const which = `${item.circuit && item.sets === 1 ? 'Round' : 'Set'} ${segment.set} of ${segment.sets}`;
  if (segment.kind !== 'work') return which;
  if (segment.amount === null) return `${which}: as many clean ones as the time allows`;
  if (item.asMany) return `${which}: as many as stay clean, up to ${segment.amount}`;
  const least = item.perSide ? undefined : item.amountFrom;
  return least === undefined ? which : `${which}: ${least} is enough, ${segment.amount} at most`;
}

function upNext(reference: Reference, run: Run, index: number): string {
  const later = run.segments.find((s, at) => at > run.position.segment && s.item !== index);
  const next = later ? run.items[later.item] : undefined;
  return next ? lineName(reference, next) : 'the end';
}

/** The time of day at which a session that goes on now is over. */
function Ready({ left }: { left: number }) {
  const [now, setNow] = useState(() => Date.now());
  useInterval(() => setNow(Date.now()), 1000, { autoInvoke: true });
  const ready = new Date(now + Math.ceil(left) * 1000);
  const two = (figure: number) => String(figure).padStart(2, '0');
  return (
    <b className={classes.ready}>
      ready {two(ready.getHours())}:{two(ready.getMinutes())}
    </b>
  );
}

/** What to do this second, legible two metres away. */
export function Stage({ run }: { run: Run }) {
  const reference = useReference();
  const segment = run.segments[run.position.segment];
  if (!segment) return null;
  const item = run.items[segment.item];
  const drill = item ? reference.drills.get(item.drill) : undefined;
  const total = run.segments.reduce((sum, s) => sum + s.seconds, 0);
  const left = secondsLeft(run.segments, run.position);
  const sided = segment.side === 'left' || segment.side === 'right';
  return (
    <div className={classes.stage} data-kind={segment.kind}>
      <div
        className={classes.bar}
        role="progressbar"
        aria-label="Session"
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(100 - (left / total) * 100)}
      >
        <span style={{ width: `${100 - (left / total) * 100}%` }} />
      </div>
      <div className={classes.drill}>
        {segment.item + 1} / {run.items.length} · {item ? lineName(reference, item) : ''}
        {item?.ledBy ? `, led by ${item.ledBy}` : ''}
      </div>
      <div className={classes.headline} data-side={sided ? segment.side : undefined} aria-live="polite">
        {headline(segment, drill, item)}
        {sided && segment.kind === 'work' ? (
          <span>
            {' '}
            {SIDE_MARK[segment.side]} {SIDE_LABEL[segment.side]}
          </span>
        ) : null}
      </div>
      <div className={classes.counted}>
        {drill && item ? (
          <RunPicture drill={drill} item={item} segment={segment} elapsed={run.position.elapsed} />
        ) : null}
        <BigNumber segment={segment} elapsed={run.position.elapsed} drill={drill} />
      </div>
      <div className={classes.sets}>
        {setNote(segment, item)} {holdNote(segment, item, run.position.elapsed)}
      </div>
      <p className={classes.cue}>{segment.kind === 'work' ? drill?.cues.join(' · ') : drill?.athleteText}</p>
      {item && drill ? (
        <p className={classes.note}>
          {[setupText(drill, item), item.note, item.circuit ? circuitText(item.circuit) : '']
            .filter(Boolean)
            .join(' · ')}
        </p>
      ) : null}
      <div className={classes.left}>
        {duration(left)} left, then {upNext(reference, run, segment.item)}
        <Ready left={left} />
      </div>
    </div>
  );
}
