import { Button, Group, SegmentedControl, Text } from '@mantine/core';
import type { DeviceKind } from '@yonder/core/devices';
import type { Side } from '@yonder/core/domain';
import type { Test } from '@yonder/core/reference';
import { figure } from '@yonder/core/words';
import { useEffect, useState } from 'react';
import { UnitInput } from '../../components/UnitInput.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { captured, deviceOf } from './capture.ts';
import type { Captured, Taken } from './capture.ts';
import classes from './Clocks.module.css';
import { conversionOf, inTestUnit, needsLever } from './convert.ts';
import type { Measured } from './convert.ts';
import { useDevice } from './useDevice.ts';
import type { Recording } from './useDevice.ts';

const NAME: Readonly<Record<DeviceKind, string>> = {
  dynamometer: 'handheld dynamometer',
  inclinometer: 'inclinometer',
  'contact-mat': 'contact mat',
};
const W = 440;
const H = 120;

/** The live trace: force or angle against time, or the mat's contacts as bars. */
function Trace({ kind, recording, hz }: { kind: DeviceKind; recording: Recording; hz: number }) {
  const label = `Trace of the ${NAME[kind]}`;
  if (kind === 'contact-mat') {
    const last = Math.max(2000, recording.contacts.at(-1)?.t ?? 0);
    const x = (t: number) => (t / last) * W;
    return (
      <svg
        viewBox={`0 0 ${W} ${H}`}
        preserveAspectRatio="none"
        className={classes.trace}
        role="img"
        aria-label={label}
      >
        {recording.contacts.map((c, i) => {
          const next = recording.contacts[i + 1];
          if (!c.down || !next) return null;
          return (
            <rect
              key={c.t}
              x={x(c.t)}
              y={H / 3}
              width={x(next.t) - x(c.t)}
              height={H / 3}
              fill="var(--left)"
            />
          );
        })}
        <line x1={0} x2={W} y1={(2 * H) / 3} y2={(2 * H) / 3} stroke="var(--muted)" />
      </svg>
    );
  }
  const span = Math.max(6 * hz, recording.samples.length);
  const low = Math.min(0, ...recording.samples);
  const high = Math.max(20, ...recording.samples);
  const y = (v: number) => H - 6 - ((v - low) / (high - low)) * (H - 12);
  const points = recording.samples
    .map((v, i) => `${((i / span) * W).toFixed(1)},${y(v).toFixed(1)}`)
    .join(' ');
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      preserveAspectRatio="none"
      className={classes.trace}
      role="img"
      aria-label={label}
    >
      <line x1={0} x2={W} y1={y(0)} y2={y(0)} stroke="var(--muted)" strokeDasharray="3 4" />
      <polyline points={points} fill="none" stroke="var(--left)" strokeWidth="2" />
    </svg>
  );
}

interface Props {
  /** The test captured for. */
  test: Test;
  /** The side captured for. */
  side: Side;
  /** How the fields of that side are read; null in the unit of the test. */
  measured: Measured | null;
  /** Where the value goes: "left, trial 2". */
  target: string;
  /** A value as its field is read. */
  onTake: (value: number) => void;
}

/** What a device shows, in the unit of the test by limb length, body mass and lever; and what is missing for that. */
function useConverted(test: Test, side: Side, lever: number | null, result: Captured) {
  const { case: input } = useWorkspace();
  const conversion = conversionOf(test, input.athlete, side);
  const missing = conversion && 'missing' in conversion ? conversion.missing : null;
  const way = conversion && 'measured' in conversion ? { ...conversion.measured, lever } : null;
  const read = result.value;
  if (read === null || missing !== null) return { value: null, missing, way };
  const direct = Number(read.toFixed(test.unit === 'reps' ? 0 : 1));
  return { value: way ? inTestUnit(test, way, read) : direct, missing, way };
}

/** A value the stand-in plays around: the middle of the usual band, in the device's own unit. */
function usualOf(test: Test, way: Measured | null): number {
  const middle = (test.reference.low + test.reference.high) / 2;
  if (!way) return middle;
  const one = inTestUnit(test, { ...way, lever: way.lever ?? 30 }, 100) ?? 0;
  return one > 0 ? (middle / one) * 100 : 200;
}

/** Capture from a device: live trace, what it comes to, and into the trial. Nothing for tests no device measures. */
export function Capture(props: Props) {
  const kind = deviceOf(props.test);
  return kind ? <CaptureFrom key={kind} kind={kind} {...props} /> : null;
}

function CaptureFrom({ kind, test, side, measured, target, onTake }: Props & { kind: DeviceKind }) {
  const { state, recording, connect, start, stop, close } = useDevice(kind);
  const [taken, setTaken] = useState<Taken>('peak');
  const [ownLever, setLever] = useState<number | null>(null);
  const lever = measured ? measured.lever : ownLever;
  const hz = 'hz' in state ? state.hz : 100;
  const result = captured(kind, recording, hz, taken);
  const { value, missing, way } = useConverted(test, side, lever, result);
  const steady = kind === 'inclinometer' && state.kind === 'recording' && result.value !== null;
  useEffect(() => {
    if (steady) stop(); // an angle is captured once it holds still
  }, [steady, stop]);
  if (state.kind === 'closed') {
    return (
      <div className={classes.clock}>
        <Button variant="light" size="xs" onClick={connect}>
          Capture from {NAME[kind]}
        </Button>
      </div>
    );
  }
  const running = state.kind === 'recording';
  return (
    <div className={classes.clock}>
      <Group gap="xs">
        <b>
          {NAME[kind]}
          {'simulated' in state && state.simulated ? ', simulated' : ''}
        </b>
        <Text size="sm" c="var(--muted)" role="status">
          {state.kind === 'opening' ? 'connecting…' : state.kind === 'failed' ? state.message : result.text}
        </Text>
      </Group>
      <Trace kind={kind} recording={recording} hz={hz} />
      {result.warnings.length > 0 && !running ? (
        <Text size="sm" c="var(--danger)" role="alert">
          Repeat it: {result.warnings.join('; ')}.
        </Text>
      ) : null}
      {measured && needsLever(test) && !lever ? (
        <Text size="sm" c="var(--danger)">
          Type the lever arm first.
        </Text>
      ) : null}
      {missing ? (
        <Text size="sm" c="var(--danger)">
          Enter the {missing} in the story first.
        </Text>
      ) : null}
      <Group gap="xs" align="flex-end">
        {kind === 'dynamometer' ? (
          <SegmentedControl
            size="xs"
            aria-label="What is taken"
            value={taken}
            onChange={(next) => setTaken(next === 'peak' ? 'peak' : 'best-second')}
            data={[
              { value: 'peak', label: 'Peak' },
              { value: 'best-second', label: 'Best second' },
            ]}
          />
        ) : null}
        {needsLever(test) && !measured ? (
          <UnitInput w={120} size="xs" label="Lever arm" unit="cm" value={ownLever} onChange={setLever} />
        ) : null}
        {running ? (
          <Button size="xs" variant="light" onClick={stop}>
            Stop
          </Button>
        ) : state.kind === 'failed' ? (
          <Button size="xs" onClick={connect}>
            Connect again
          </Button>
        ) : (
          <Button size="xs" onClick={() => start(usualOf(test, way))} disabled={state.kind === 'opening'}>
            {state.kind === 'ended' ? 'Record again' : 'Record'}
          </Button>
        )}
        {value !== null && !running ? (
          <Button
            size="xs"
            onClick={() =>
              onTake(measured && result.value !== null ? Number(result.value.toFixed(1)) : value)
            }
          >
            Take {figure(value, test.unit)} into {target}
          </Button>
        ) : null}
        <Button size="xs" variant="subtle" onClick={close}>
          Close
        </Button>
      </Group>
    </div>
  );
}
