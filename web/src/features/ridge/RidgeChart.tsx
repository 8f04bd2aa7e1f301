import { useElementSize } from '@mantine/hooks';
import type { Region, Side } from '@yonder/core/domain';
import type { Capacity, FindingsReport } from '@yonder/core/findings';
import {
  figure,
  nameOf,
  needText,
  percent,
  REGION_LABEL,
  SIDE_LABEL,
  signedFigure,
  sourceText,
  STATE_LABEL,
} from '@yonder/core/words';
import { useMemo, useState } from 'react';
import type { KeyboardEvent } from 'react';
import { useReference } from '../../app/reference.tsx';
import { dayText } from '../../app/today.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { layoutRidge, MIST, ridgePath, unbroken } from './layout.ts';
import type { RidgeGroup, RidgeLayout, RidgePoint } from './layout.ts';
import classes from './Ridge.module.css';

interface Props {
  /** Capacities and needs to draw. */
  report: FindingsReport;
  /** The joint whose tests stand out. */
  region: Region;
  /** The selected test and side. */
  selected: { test: string; side: Side } | null;
  /** A point was pressed. */
  onSelect: (capacity: Capacity) => void;
  /** Day whose ridge shows behind; null for the screening before. */
  compareDay: string | null;
}

const MARK: Readonly<Record<Side, (x: number, y: number) => string>> = {
  left: (x, y) => `M${x + 5} ${y - 6}v12l-10-6z`,
  right: (x, y) => `M${x - 5} ${y - 6}v12l10-6z`,
  central: (x, y) => `M${x} ${y - 6}l6 6-6 6-6-6z`,
};

/** The region's name under its group; beside the fog it is broken into two lines. */
function RegionName({ group, y }: { group: RidgeGroup; y: number }) {
  const x = group.x + group.width / 2;
  const label = REGION_LABEL[group.region];
  const lines =
    group.width < label.length * 8
      ? label
          .replace(' & ', ' &|')
          .replace(/ (?=back|body)/, '|')
          .split('|')
      : [label];
  return (
    <text className={classes.regionText} data-fog={!group.screened || undefined}>
      {lines.map((line, index) => (
        <tspan key={line} x={x} y={y + index * 14 - (lines.length - 1) * 6}>
          {line}
        </tspan>
      ))}
    </text>
  );
}

function Ground({ layout, region }: { layout: RidgeLayout; region: Region }) {
  const { plot, yOf } = layout;
  return (
    <>
      <defs>
        <pattern id="fog" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="7" height="7" fill="var(--mist)" />
          <rect width="3" height="7" fill="var(--fog)" />
        </pattern>
        <clipPath id="below-need">
          <rect x={plot.left} y={yOf(0)} width={plot.right - plot.left} height={plot.bottom - yOf(0)} />
        </clipPath>
      </defs>
      <rect
        x={plot.left}
        y={yOf(MIST)}
        width={plot.right - plot.left}
        height={yOf(-MIST) - yOf(MIST)}
        fill="var(--mist)"
      />
      {layout.groups.map((group) => (
        <g key={group.region}>
          {group.region === region ? (
            <rect
              x={group.x}
              y={plot.bottom + 4}
              width={group.width}
              height={32}
              rx="5"
              className={classes.here}
            />
          ) : null}
          {group.screened ? null : (
            <>
              <rect
                x={group.x}
                y={plot.top}
                width={group.width}
                height={plot.bottom - plot.top}
                fill="url(#fog)"
                rx="3"
              />
              <text
                className={classes.fogText}
                transform={`translate(${group.x + group.width / 2 + 4} ${plot.top + 14}) rotate(90)`}
              >
                not screened
              </text>
            </>
          )}
          {group.screened || group.width > 44 ? <RegionName group={group} y={plot.bottom + 21} /> : null}
        </g>
      ))}
      {layout.ticks.map((tick) => (
        <text key={tick} x={plot.left - 8} y={yOf(tick) + 4} className={classes.tick}>
          {tick > 0 ? `+${tick}` : tick < 0 ? `−${-tick}` : '0'}
        </text>
      ))}
    </>
  );
}

function Line({ layout, side }: { layout: RidgeLayout; side: 'left' | 'right' }) {
  const runs = unbroken(layout.lines[side], layout.groups);
  const need = layout.yOf(0);
  return (
    <g style={{ color: `var(--${side})` }}>
      {runs.map((run) => {
        const path = ridgePath(run);
        const first = run[0];
        const last = run.at(-1);
        if (!first || !last) return null;
        const before = run.filter((p) => p.before !== null).map((p) => ({ x: p.x, y: p.before ?? 0 }));
        return (
          <g key={first.x}>
            <path
              d={`${path} L${last.x} ${need} L${first.x} ${need}Z`}
              fill="currentColor"
              opacity="0.16"
              clipPath="url(#below-need)"
            />
            {before.length > 1 ? <path d={ridgePath(before)} className={classes.earlier} /> : null}
            <path d={path} fill="none" stroke="currentColor" strokeWidth="2.2" />
          </g>
        );
      })}
    </g>
  );
}

function pointLabel(point: RidgePoint, name: string): string {
  const { capacity } = point;
  const state = capacity.state ? STATE_LABEL[capacity.state] : 'no need known';
  return `${name}, ${SIDE_LABEL[capacity.side]}: ${figure(capacity.estimate, capacity.unit)}, ${state}`;
}

interface PointProps {
  /** Place, margin and error of one test and side. */
  point: RidgePoint;
  /** Words for it, for those who do not see it. */
  name: string;
  /** True for the one explained beside the picture. */
  selected: boolean;
  /** A point was pressed. */
  onSelect: () => void;
  /** The pointer is over it; null when it left. */
  onHover: (point: RidgePoint | null) => void;
}

function Point({ point, name, selected, onSelect, onHover }: PointProps) {
  const { capacity, x, y, bar } = point;
  const short = capacity.state === 'short';
  const likely = capacity.state === 'likely-short';
  const keys = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    onSelect();
  };
  const colour = capacity.side === 'central' ? 'var(--muted)' : `var(--${capacity.side})`;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={pointLabel(point, name)}
      aria-pressed={selected}
      className={classes.point}
      onClick={onSelect}
      onKeyDown={keys}
      onMouseEnter={() => onHover(point)}
      onMouseLeave={() => onHover(null)}
      onFocus={() => onHover(point)}
      onBlur={() => onHover(null)}
    >
      <circle cx={x} cy={y} r="13" fill="transparent" className={classes.hit} />
      {bar ? (
        <line x1={x} x2={x} y1={bar[0]} y2={bar[1]} stroke={colour} strokeWidth="1.3" opacity="0.65" />
      ) : null}
      <path
        d={MARK[capacity.side](x, y)}
        fill={short ? colour : likely ? `color-mix(in srgb, ${colour} 45%, var(--card))` : 'var(--card)'}
        stroke={colour}
        strokeWidth="1.8"
        strokeLinejoin="round"
      />
    </g>
  );
}

/** Names of the valleys, the lower side of each test once, where neither a mark nor another name is. */
function valleyLabels(layout: RidgeLayout, nameOfTest: (test: string) => string) {
  const { left, right, top, bottom } = layout.plot;
  const all = [...layout.lines.left, ...layout.lines.right, ...layout.lines.central];
  const placed: { x: number; y: number; width: number; text: string; side: Side }[] = [];
  const free = (x: number, y: number, half: number) =>
    x - half >= left &&
    x + half <= right &&
    y > top &&
    y < bottom &&
    !placed.some((l) => Math.abs(l.y - y) < 13 && Math.abs(l.x - x) < l.width / 2 + half + 6) &&
    !all.some((p) => Math.abs(p.x - x) < half + 8 && p.y + 8 > y - 10 && p.y - 8 < y + 2);
  const valleys = all
    .filter((p) => p.capacity.state === 'short' || p.capacity.state === 'likely-short')
    .sort((a, b) => b.y - a.y)
    .filter((p, i, sorted) => sorted.findIndex((q) => q.capacity.test === p.capacity.test) === i)
    .slice(0, 8);
  for (const point of valleys) {
    const text = nameOfTest(point.capacity.test);
    const width = text.length * 6.6;
    const half = width / 2;
    const x = Math.min(right - half, Math.max(left + half, point.x));
    const barEnds = [...(point.bar ?? []), point.y - 8, point.y + 8];
    const below = Math.min(Math.max(...barEnds) + 13, bottom - 4);
    const above = Math.min(...barEnds) - 6;
    const spot = (
      [
        [x, below],
        [point.x + half + 12, point.y + 4],
        [point.x - half - 12, point.y + 4],
        ...[6, 12, 18, 24, 30].map((down) => [x, below + down] as const),
        [x, above],
        [x, above - 14],
      ] as const
    ).find(([atX, atY]) => free(atX, atY, half));
    if (spot) placed.push({ x: spot[0], y: spot[1], width, text, side: point.capacity.side });
  }
  return placed;
}

function Tooltip({ point }: { point: RidgePoint }) {
  const reference = useReference();
  const { safety } = useWorkspace().assessment;
  const { capacity } = point;
  return (
    <div className={classes.tooltip} style={{ left: point.x, top: point.y }} role="presentation">
      <b>{nameOf(reference, capacity.test)}</b>, {SIDE_LABEL[capacity.side]}
      <br />
      {figure(capacity.estimate, capacity.unit)}
      {capacity.sd === null ? '' : ` ± ${figure(1.645 * capacity.sd, capacity.unit)}`},{' '}
      {dayText(capacity.date)}
      {capacity.value === capacity.estimate ? null : (
        <>
          <br />
          latest reading {figure(capacity.value, capacity.unit)}
        </>
      )}
      <br />
      needs {needText(reference, capacity, safety.age)}
      {capacity.needSource ? ` (${sourceText(reference, capacity.needSource)})` : ''}
      {capacity.reserve === null ? null : (
        <>
          <br />
          reserve {signedFigure(capacity.reserve, capacity.unit)}, short with {percent(capacity.pShort ?? 0)}
        </>
      )}
      {capacity.painLimited ? <div>pain-limited</div> : null}
    </div>
  );
}

/** The signature picture: reserve along the body, left and right as two ridges over the need line. */
export function RidgeChart({ report, region, selected, onSelect, compareDay }: Props) {
  const reference = useReference();
  const { ref, width, height } = useElementSize();
  const [hovered, setHovered] = useState<RidgePoint | null>(null);
  const layout = useMemo(
    () => layoutRidge(reference, report, Math.max(width, 320), Math.max(height, 240), compareDay),
    [reference, report, width, height, compareDay],
  );
  const restrictionName = (test: string) => nameOf(reference, reference.tests.get(test)?.informs[0] ?? test);
  const points = [...layout.lines.central, ...layout.lines.right, ...layout.lines.left];
  if (width === 0) return <div ref={ref} className={classes.chart} />;
  return (
    <div ref={ref} className={classes.chart}>
      <svg
        width={Math.max(width, 320)}
        height={Math.max(height, 240)}
        role="group"
        aria-label="The ridge: margin per test, left and right"
      >
        <Ground layout={layout} region={region} />
        <Line layout={layout} side="right" />
        <Line layout={layout} side="left" />
        <line
          x1={layout.plot.left}
          x2={layout.plot.right}
          y1={layout.yOf(0)}
          y2={layout.yOf(0)}
          stroke="var(--need)"
          strokeWidth="1.6"
        />
        <text x={layout.plot.left + 4} y={layout.yOf(0) - 6} className={classes.needText}>
          need
        </text>
        {valleyLabels(layout, restrictionName).map((label) => (
          <text
            key={`${label.text}${label.side}${label.x}`}
            x={label.x}
            y={label.y}
            className={classes.valley}
            data-side={label.side}
          >
            {label.text}
          </text>
        ))}
        {points.map((point) => (
          <Point
            key={`${point.capacity.test}/${point.capacity.side}`}
            point={point}
            name={nameOf(reference, point.capacity.test)}
            selected={selected?.test === point.capacity.test && selected.side === point.capacity.side}
            onSelect={() => onSelect(point.capacity)}
            onHover={setHovered}
          />
        ))}
      </svg>
      {hovered ? <Tooltip point={hovered} /> : null}
    </div>
  );
}
