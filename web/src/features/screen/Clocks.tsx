import { Button, Group } from '@mantine/core';
import type { Test } from '@yonder/core/reference';
import { number } from '@yonder/core/words';
import { useEffect, useRef, useState } from 'react';
import { UnitInput } from '../../components/UnitInput.tsx';
import classes from './Clocks.module.css';

interface ClockProps {
  /** Seconds to store, rounded to tenths, and the touch-downs counted on the way. */
  onTake: (seconds: number, touchDowns: number) => void;
  /** True for a balance clock: touch-downs are counted, a fall ends it. */
  balance: boolean;
  /** Where the time goes: "left, trial 2". */
  target: string;
}

/** Counts up from a press. Touch-downs are counted and the clock goes on. */
function HoldClock({ onTake, balance, target }: ClockProps) {
  const [startedAt, setStartedAt] = useState<number | null>(null);
  const [now, setNow] = useState(0);
  const [touches, setTouches] = useState(0);
  useEffect(() => {
    if (startedAt === null) return;
    const timer = setInterval(() => setNow(performance.now()), 100);
    return () => clearInterval(timer);
  }, [startedAt]);
  const elapsed = startedAt === null ? 0 : Math.max(0, now - startedAt) / 1000;
  const start = () => {
    setTouches(0);
    setNow(performance.now());
    setStartedAt(performance.now());
  };
  const take = () => {
    if (startedAt === null) return;
    onTake(Math.round((performance.now() - startedAt) / 100) / 10, touches);
    setStartedAt(null);
  };
  return (
    <Group gap="xs" className={classes.clock}>
      <output className={classes.time} aria-label="Clock">
        {number(elapsed, 1)} s
      </output>
      {startedAt === null ? (
        <Button variant="light" onClick={start}>
          Start clock
        </Button>
      ) : (
        <>
          <Button onClick={take}>Stop and take</Button>
          {balance ? (
            <Button variant="default" onClick={() => setTouches((n) => n + 1)}>
              Touch-down ({touches})
            </Button>
          ) : null}
          <Button variant="subtle" onClick={() => setStartedAt(null)}>
            Discard
          </Button>
        </>
      )}
      <span className="muted">into {target}</span>
    </Group>
  );
}

/** A short tick; silent where sound is not allowed. */
function beep(context: AudioContext, accent: boolean): void {
  const oscillator = context.createOscillator();
  const gain = context.createGain();
  oscillator.frequency.value = accent ? 1320 : 880;
  gain.gain.setValueAtTime(0.2, context.currentTime);
  gain.gain.exponentialRampToValueAtTime(0.001, context.currentTime + 0.06);
  oscillator.connect(gain).connect(context.destination);
  oscillator.start();
  oscillator.stop(context.currentTime + 0.07);
}

/** Cadence for rep tests: sound and a pulse on each beat, and how many reps that makes. */
function Metronome({ target, onTake }: { target: string; onTake: (reps: number) => void }) {
  const [perMinute, setPerMinute] = useState(30);
  const [beats, setBeats] = useState<number | null>(null);
  const audio = useRef<AudioContext | null>(null);
  const running = beats !== null;
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(
      () =>
        setBeats((n) => {
          if (n === null) return n;
          if (audio.current) beep(audio.current, (n + 1) % 10 === 0);
          return n + 1;
        }),
      60_000 / perMinute,
    );
    return () => clearInterval(timer);
  }, [running, perMinute]);
  useEffect(() => () => void audio.current?.close(), []);
  const start = () => {
    audio.current ??= typeof AudioContext === 'undefined' ? null : new AudioContext();
    setBeats(0);
  };
  return (
    <Group gap="xs" className={classes.clock}>
      <output className={classes.time} aria-label="Beats">
        {beats ?? 0} reps
      </output>
      <span key={beats ?? 'still'} className={running ? classes.pulse : classes.still} aria-hidden="true" />
      <UnitInput
        w={112}
        aria-label="Cadence"
        unit="/ min"
        min={6}
        max={240}
        step={5}
        value={perMinute}
        disabled={running}
        onChange={(value) => value !== null && value >= 6 && value <= 240 && setPerMinute(value)}
      />
      {running ? (
        <>
          <Button
            onClick={() => {
              onTake(beats);
              setBeats(null);
            }}
          >
            Stop and take
          </Button>
          <Button variant="subtle" onClick={() => setBeats(null)}>
            Discard
          </Button>
        </>
      ) : (
        <Button variant="light" onClick={start}>
          Start metronome
        </Button>
      )}
      <span className="muted">into {target}</span>
    </Group>
  );
}

interface Props {
  /** The test timed. */
  test: Test;
  /** Trial the value goes to, in words. */
  target: string;
  /** Seconds, and touch-downs where they are counted. */
  onTake: (value: number, touchDowns: number | null) => void;
}

/** The built-in clock that fits the test: hold or balance clock for seconds, metronome for reps; else nothing. */
export function Clocks({ test, target, onTake }: Props) {
  const balance = test.quantity === 'balance';
  if (test.unit === 's') {
    return (
      <HoldClock
        balance={balance}
        target={target}
        onTake={(seconds, touches) => onTake(seconds, balance ? touches : null)}
      />
    );
  }
  if (test.unit !== 'reps') return null;
  return <Metronome target={target} onTake={(reps) => onTake(reps, null)} />;
}
