import { Loader, Text, useComputedColorScheme } from '@mantine/core';
import type { CurvePoint } from '@yonder/core/builder';
import { stopsPaying } from '@yonder/core/builder';
import { CategoryScale, Chart, LinearScale, LineElement, PointElement, Tooltip } from 'chart.js';
import { useEffect, useState } from 'react';
import { Line } from 'react-chartjs-2';
import { background } from '../../workers/client.ts';
import type { Asked } from '../../workers/protocol.ts';
import classes from './Routine.module.css';

Chart.register(CategoryScale, LinearScale, LineElement, PointElement, Tooltip);

/** Minutes that are tried: close together where most routines are, then wider. */
const MINUTES = [3, 4, 5, 6, 8, 10, 12, 15, 18, 21, 25, 30];

/** The curve, point by point in a worker of its own; ended when something else is asked. */
interface Curve {
  readonly of: Asked;
  readonly points: readonly CurvePoint[];
  readonly done: boolean;
}

function useCurve(asked: Asked): Curve {
  const [curve, setCurve] = useState<Curve>({ of: asked, points: [], done: false });
  useEffect(() => {
    const controller = new AbortController();
    let points: readonly CurvePoint[] = [];
    const onInterim = (point: CurvePoint) => {
      points = [...points, point];
      setCurve({ of: asked, points, done: false });
    };
    background
      .call(
        'curve',
        asked.subject,
        { request: asked.request, minutes: MINUTES },
        { signal: controller.signal, onInterim },
      )
      .then(
        (all) => setCurve({ of: asked, points: all, done: true }),
        () => undefined, // ended because something else was asked
      );
    return () => controller.abort();
  }, [asked]);
  return curve.of === asked ? curve : { of: asked, points: [], done: false };
}

/** Benefit of the best routine against its minutes, and the minutes from which more time stops paying. */
export function CurveChart({ asked }: { asked: Asked }) {
  const dark = useComputedColorScheme('light') === 'dark';
  const { points, done } = useCurve(asked);
  const most = Math.max(1e-9, ...points.map((p) => p.benefit));
  const share = (p: CurvePoint) => Math.round((100 * p.benefit) / most);
  const ink = dark ? '#aeb6b8' : '#55626b';
  const line = dark ? '#6cc0c4' : '#17646b';
  const turn = done ? stopsPaying(points) : null;
  const now = asked.request.minutes;
  const words = done
    ? turn === null
      ? 'Every further minute up to 30 still pays.'
      : `From ${turn} min on more time adds little.`
    : 'working it out in the background…';
  return (
    <figure className={classes.curve}>
      <div className={classes.curveChart}>
        <Line
          aria-label={`Benefit against minutes: ${points.map((p) => `${p.minutes} min ${share(p)} %`).join(', ')}`}
          role="img"
          data={{
            labels: points.map((p) => p.minutes),
            datasets: [
              {
                data: points.map(share),
                borderColor: line,
                backgroundColor: points.map((p) => (p.minutes === now ? '#c46b2d' : line)),
                pointRadius: points.map((p) => (p.minutes === now || p.minutes === turn ? 6 : 3)),
                pointStyle: points.map((p) => (p.minutes === turn ? 'triangle' : 'circle')),
                tension: 0.25,
              },
            ],
          }}
          options={{
            animation: false,
            maintainAspectRatio: false,
            plugins: {
              tooltip: {
                callbacks: {
                  label: ({ dataIndex }) => {
                    const point = points[dataIndex];
                    return point ? `${share(point)} % of the benefit, ${point.drills} drills` : '';
                  },
                },
              },
            },
            scales: {
              x: {
                title: { display: true, text: 'minutes', color: ink },
                ticks: { color: ink, maxRotation: 0, autoSkip: true },
                grid: { display: false },
              },
              y: {
                min: 0,
                max: 100,
                title: { display: true, text: '% of the benefit', color: ink },
                ticks: { color: ink, stepSize: 25 },
              },
            },
          }}
        />
      </div>
      <figcaption>
        {done ? null : <Loader size={11} mr={5} />}
        <Text span size="sm" role="status">
          {words}
        </Text>
      </figcaption>
    </figure>
  );
}
