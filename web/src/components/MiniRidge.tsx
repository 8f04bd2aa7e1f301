import { REGIONS } from '@yonder/core/domain';
import type { AthleteSummary } from '@yonder/core/contracts';

const W = 132;
const H = 30;
const CLIP = 2;

function y(margin: number): number {
  const clipped = Math.max(-CLIP, Math.min(CLIP, margin));
  return H / 2 - (clipped / CLIP) * (H / 2 - 3);
}

/** Neighbouring regions only: the line breaks where there is fog. */
function runsOf<T extends { x: number }>(points: readonly T[]): T[][] {
  const runs: T[][] = [];
  points.forEach((point, i) => {
    const before = points[i - 1];
    if (!before || point.x - before.x > (W / REGIONS.length) * 1.5) runs.push([]);
    runs.at(-1)?.push(point);
  });
  return runs;
}

/** The ridge in miniature: the worst margin per region, left and right, fog where nothing was screened. */
export function MiniRidge({ ridge, name }: { ridge: AthleteSummary['ridge']; name: string }) {
  const step = W / REGIONS.length;
  const points = (side: string) =>
    ridge
      .filter((p) => p.side === side || p.side === 'central')
      .map((p) => ({ x: (REGIONS.indexOf(p.region) + 0.5) * step, y: y(p.margin) }))
      .sort((a, b) => a.x - b.x);
  const screened = new Set(ridge.map((p) => p.region));
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width={W}
      height={H}
      role="img"
      aria-label={`Ridge of ${name}, ${screened.size} regions screened`}
    >
      {REGIONS.map((region, i) =>
        screened.has(region) ? null : (
          <rect
            key={region}
            x={i * step + 1}
            y={2}
            width={step - 2}
            height={H - 4}
            fill="var(--fog)"
            opacity="0.6"
            rx="2"
          />
        ),
      )}
      <line x1="0" x2={W} y1={H / 2} y2={H / 2} stroke="var(--need)" strokeWidth="1" />
      {(['left', 'right'] as const).map((side) => (
        <g key={side} stroke={`var(--${side})`} fill={`var(--${side})`}>
          {runsOf(points(side)).map((run) => (
            <polyline
              key={run[0]?.x}
              points={run.map((p) => `${p.x},${p.y}`).join(' ')}
              fill="none"
              strokeWidth="1.5"
            />
          ))}
          {points(side).map((p) => (
            <path
              key={p.x}
              d={side === 'left' ? `M${p.x + 3} ${p.y - 3}v6l-5-3z` : `M${p.x - 3} ${p.y - 3}v6l5-3z`}
              stroke="none"
            />
          ))}
        </g>
      ))}
    </svg>
  );
}
