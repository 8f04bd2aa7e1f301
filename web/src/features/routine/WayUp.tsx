import { useElementSize } from '@mantine/hooks';
import type { Draft } from '@yonder/core/contracts';
import { routineTime } from '@yonder/core/dose';
import { duration, lineName, SIDE_LABEL } from '@yonder/core/words';
import { useMemo } from 'react';
import { useReference } from '../../app/reference.tsx';
import { ridgePath } from '../ridge/layout.ts';
import { HEIGHT, wayUp } from './wayUp.ts';
import type { WayUp as Way } from './wayUp.ts';
import classes from './WayUp.module.css';

const TOP = 32;
const GROUND = 94;
const BASE = TOP + GROUND;
const SCALE = BASE + 18;
const TALL = SCALE + 14;
const MARGIN = 84;
const NARROW = 560;
/** Pixels a character of the small labels takes. */
const CHARACTER = 6.4;

/** "1:05": minutes and seconds of the clock of the session. */
function clock(seconds: number): string {
  const whole = Math.round(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}

interface Scale {
  readonly x: (seconds: number) => number;
  readonly y: (height: number) => number;
}

/** Dotted lines of the three intensities, named at the left. */
function Levels({ y, left, right, named }: { y: Scale['y']; left: number; right: number; named: boolean }) {
  const levels = [
    [HEIGHT.low, 'easy'],
    [HEIGHT.moderate, 'working'],
    [HEIGHT.high, 'hard'],
  ] as const;
  return levels.map(([height, name]) => (
    <g key={name}>
      <line x1={left} x2={right} y1={y(height)} y2={y(height)} className={classes.level} />
      {named ? (
        <text x={left - 8} y={y(height) + 4} className={classes.levelName}>
          {name}
        </text>
      ) : null}
    </g>
  ));
}

/** The parts of the session as ground under the path, each under its name and time where there is room. */
function Parts({ way, scale }: { way: Way; scale: Scale }) {
  const { x, y } = scale;
  const points = way.ground.map(({ at, height }) => ({ x: x(at), y: y(height) }));
  const from = points[0]?.x ?? 0;
  const to = points.at(-1)?.x ?? 0;
  return (
    <>
      <clipPath id="way-ground">
        <path d={`${ridgePath(points)} L${to} ${BASE} L${from} ${BASE} Z`} />
      </clipPath>
      <g clipPath="url(#way-ground)">
        {way.parts.map((part, i) => (
          <rect
            key={`${part.id}/${part.start}`}
            x={x(part.start)}
            y={TOP}
            width={Math.max(0, x(part.end) - x(part.start))}
            height={GROUND}
            data-part={i % 4}
            className={classes.ground}
          />
        ))}
        {[0.45, 0.7].map((lower) => (
          <path
            key={lower}
            d={ridgePath(way.ground.map(({ at, height }) => ({ x: x(at), y: y(height * lower) })))}
            className={classes.contour}
          />
        ))}
      </g>
      {way.parts.slice(1).map((part) => (
        <line
          key={part.start}
          x1={x(part.start)}
          x2={x(part.start)}
          y1={TOP + 14}
          y2={BASE}
          className={classes.border}
        />
      ))}
      {way.parts.map((part) => {
        const wide = x(part.end) - x(part.start) - 8;
        const time = clock(part.end - part.start);
        const short = part.name.replace(/^(Block )?\d[a-c]?:? /, '');
        const room = Math.floor(wide / CHARACTER);
        if (room < time.length) return null;
        const most = room - time.length - 1;
        const name = short.length <= most ? short : most > 6 ? `${short.slice(0, most - 1)}…` : '';
        return (
          <text key={part.start} x={x(part.start) + 5} y={BASE - 5} className={classes.part}>
            <title>{`${part.name}: ${duration(part.end - part.start)}`}</title>
            {name} <tspan className={classes.time}>{time}</tspan>
          </text>
        );
      })}
    </>
  );
}

/** The path itself: one stroke a set in the colour of its side, dots while nothing is done; a gap is a change-over. */
function Path({ way, scale: { x, y } }: { way: Way; scale: Scale }) {
  const heightOf = (item: number) => way.summits.find((s) => s.item === item)?.height ?? 0;
  return way.segments.map(({ kind, start, seconds, item, side, warms }, i) => {
    if (kind === 'changeover' || kind === 'floor-change') return null;
    const height = kind === 'work' ? heightOf(item) : heightOf(item) - (kind === 'setup' ? 0.05 : 0.16);
    const line = { x1: x(start), x2: x(start + seconds), y1: y(height), y2: y(height) };
    if (kind !== 'work') return <line key={i} {...line} className={classes.idle} />;
    const inset = Math.min(1.2, (line.x2 - line.x1) / 4);
    const work = { ...line, x1: line.x1 + inset, x2: line.x2 - inset };
    const middle = (work.x1 + work.x2) / 2;
    const sided = side === 'left' || side === 'right';
    return (
      <g key={i}>
        {warms ? <line {...work} className={classes.warm} /> : null}
        <line {...work} className={classes.work} data-side={side} />
        {sided && work.x2 - work.x1 > 9 ? (
          <path
            d={
              side === 'left'
                ? `M${middle - 5} ${work.y1} l8 -5 v10 z`
                : `M${middle + 5} ${work.y1} l-8 -5 v10 z`
            }
            className={classes.mark}
            data-side={side}
          />
        ) : null}
      </g>
    );
  });
}

/** Numbers of the drills on their summits; one that has no room stands on a post above its neighbour. */
function Stones({
  way,
  scale: { x, y },
  selected,
  nameAt,
  onSelect,
}: {
  way: Way;
  scale: Scale;
  selected: number;
  nameAt: (item: number) => string;
  onSelect: (item: number) => void;
}) {
  let last = -Infinity;
  let raised = false;
  return way.summits.map((summit) => {
    const middle = x((summit.start + summit.end) / 2);
    raised = middle - last < 19 && !raised;
    last = middle;
    const top = y(summit.height) - (raised ? 31 : 13);
    return (
      <g
        key={summit.start}
        className={classes.stone}
        data-selected={summit.item === selected || undefined}
        onClick={() => onSelect(summit.item)}
      >
        <title>{`${summit.item + 1}. ${nameAt(summit.item)}, ${clock(summit.end - summit.start)}`}</title>
        {raised ? <line x1={middle} x2={middle} y1={top + 8} y2={y(summit.height)} /> : null}
        <path d={`M${middle - 9} ${top + 8} v-9 q0 -8 9 -8 t9 8 v9 z`} />
        <text x={middle} y={top + 4}>
          {summit.item + 1}
        </text>
      </g>
    );
  });
}

/** What is free at the end, or what goes over. */
function Rest({ way, scale: { x } }: { way: Way; scale: Scale }) {
  const free = way.room - way.total;
  const end = x(way.room);
  const from = x(way.total);
  if (free < -0.5)
    return (
      <g>
        <rect x={end} y={TOP} width={x(way.total) - end} height={GROUND} className={classes.over} />
        <line x1={end} x2={end} y1={TOP - 16} y2={BASE} className={classes.limit} />
        <text x={end - 5} y={TOP - 6} className={classes.overText}>
          {clock(-free)} over
        </text>
      </g>
    );
  return (
    <g>
      <rect
        x={from}
        y={TOP + 30}
        width={Math.max(0, end - from)}
        height={GROUND - 30}
        className={classes.mist}
      />
      <line x1={end} x2={end} y1={TOP} y2={BASE} className={classes.border} />
      {free >= 5 ? (
        <text x={end} y={TOP - 20} className={classes.free}>
          free {clock(free)}
        </text>
      ) : null}
    </g>
  );
}

/** The pole where enough of warming is done, and the scale bar of what one drill should take at most. */
function Marks({ way, scale: { x, y } }: { way: Way; scale: Scale }) {
  const { warm, long } = way;
  return (
    <>
      {warm && warm.reached !== null ? (
        <g>
          <line x1={x(warm.reached)} x2={x(warm.reached)} y1={TOP - 18} y2={BASE} className={classes.pole} />
          <text
            x={x(warm.reached) + (x(warm.reached) > x(way.room) - 150 ? -5 : 5)}
            y={TOP - 20}
            textAnchor={x(warm.reached) > x(way.room) - 150 ? 'end' : 'start'}
            className={classes.warmText}
          >
            warm-up of {clock(warm.wanted)} reached
          </text>
        </g>
      ) : null}
      {long.map(({ summit, over }) => {
        const from = x(summit.start);
        const edge = x(summit.start + way.longest);
        const top = y(summit.height) - 40;
        return (
          <g key={summit.start}>
            <line x1={from} x2={edge} y1={top} y2={top} className={classes.longest} />
            <rect
              x={edge}
              y={top}
              width={x(summit.end) - edge}
              height={BASE - top}
              className={classes.over}
            />
            <text x={edge + 4} y={top - 4} className={classes.overText} textAnchor="start">
              <title>{`${clock(over)} over ${clock(way.longest)} for one drill`}</title>
              {x(summit.end) - edge > 60 || long.length === 1 ? `${clock(over)} over` : ''}
            </text>
          </g>
        );
      })}
    </>
  );
}

/** Minutes along the foot, the border alternating by the minute. */
function Minutes({ way, scale: { x }, width }: { way: Way; scale: Scale; width: number }) {
  const minutes = Math.ceil(Math.max(way.total, way.room) / 60);
  const perMinute = x(60) - x(0) || 1;
  const every = [1, 2, 5, 10, 15, 30].find((step) => step * perMinute > 46) ?? 60;
  return (
    <g>
      {Array.from({ length: minutes }, (_, minute) => (
        <rect
          key={minute}
          x={x(minute * 60)}
          y={SCALE - 14}
          width={Math.min(perMinute, width - x(minute * 60))}
          height={4}
          className={classes.border4}
          data-odd={minute % 2 === 1 || undefined}
        />
      ))}
      {Array.from({ length: Math.floor(minutes / every) + 1 }, (_, i) => i * every).map((minute) => (
        <text
          key={minute}
          x={x(minute * 60)}
          y={SCALE + 6}
          className={classes.minute}
          textAnchor={minute === 0 ? 'start' : minute === minutes ? 'end' : 'middle'}
        >
          {minute === 0 ? '0' : `${minute} min`}
        </text>
      ))}
    </g>
  );
}

/** What the picture shows, for those who do not see it; the drills themselves stand in the table below. */
function spokenText(way: Way, names: readonly string[], sides: readonly string[]): string {
  const parts = way.parts.map((p) => `${p.name} ${duration(p.end - p.start)}`).join(', ');
  const drills = way.summits.map(
    ({ item, start, end }) => `${item + 1} ${names[item]} ${sides[item]}, ${clock(start)} to ${clock(end)}`,
  );
  return `The session as a way up a ridge: ${parts}. ${drills.join('; ')}.`;
}

interface Props {
  /** The routine being edited. */
  draft: Draft;
  /** Minutes there are. */
  minutes: number;
  /** Place of the drill that is explained. */
  selected: number;
  /** A stone was pressed. */
  onSelect: (id: string) => void;
}

/** The session as a way up a ridge, seconds to scale: where it warms, works, rests and changes over, and what is free. */
export function WayUp({ draft, minutes, selected, onSelect }: Props) {
  const reference = useReference();
  const { ref, width } = useElementSize();
  const { items, structure, sections, request } = draft;
  const way = useMemo(
    () => wayUp(reference, { structure, sections, items }, request.mode, minutes),
    [reference, structure, sections, items, request.mode, minutes],
  );
  const time = routineTime(reference, items);
  const named = width >= NARROW;
  const left = named ? MARGIN - 20 : 8;
  const right = width - 12;
  const most = Math.max(way.total, way.room, 1);
  const scale: Scale = {
    x: (seconds) => left + (seconds / most) * Math.max(0, right - left),
    y: (height) => BASE - height * GROUND,
  };
  const nameAt = (place: number) => {
    const item = items[place];
    return item ? lineName(reference, item) : '';
  };
  const { warm } = way;
  return (
    <section className={`card ${classes.way}`} aria-label="The way up">
      <div className={classes.head}>
        <span className={classes.sum}>
          drills {duration(time.total - time.between)} + changing over {duration(time.between)} ={' '}
          <b>{duration(time.total)}</b>
        </span>
        {warm ? (
          <span data-short={warm.has < warm.wanted || undefined}>
            warming {clock(warm.has)} of {clock(warm.wanted)} wanted
          </span>
        ) : null}
        <span className={classes.key}>
          <i data-side="left" /> left <i data-side="right" /> right <i data-side="both" /> both
          <i data-warm /> warms
        </span>
      </div>
      <div ref={ref} className={classes.chart}>
        {width > 0 ? (
          <svg
            width={width}
            height={TALL}
            role="img"
            aria-label={spokenText(
              way,
              items.map((_, i) => nameAt(i)),
              items.map((item) => SIDE_LABEL[item.side]),
            )}
          >
            <Levels y={scale.y} left={left} right={right} named={named} />
            <Rest way={way} scale={scale} />
            <Parts way={way} scale={scale} />
            <Marks way={way} scale={scale} />
            <Path way={way} scale={scale} />
            <Stones
              way={way}
              scale={scale}
              selected={selected}
              nameAt={nameAt}
              onSelect={(item) => onSelect(items[item]?.id ?? '')}
            />
            <Minutes way={way} scale={scale} width={right} />
          </svg>
        ) : null}
      </div>
    </section>
  );
}
