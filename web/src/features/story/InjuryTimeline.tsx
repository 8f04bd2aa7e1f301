import { useElementSize } from '@mantine/hooks';
import type { AthleteRow } from '@yonder/core/contracts';
import { dayNumber } from '@yonder/core/domain';
import { REGION_LABEL, SIDE_LABEL } from '@yonder/core/words';
import { dayText } from '../../app/today.ts';
import classes from './Story.module.css';

const HEIGHT = 74;
const PAD = 16;
const LEAST_YEARS = 2;
const MARK = { left: 'M7-7v14l-12-7z', right: 'M-7-7v14l12-7z', central: 'M0-7 7 0 0 7-7 0z' } as const;

/** Past injuries along the years, left and right in their colours; an operation with the year its protocol leads. */
export function InjuryTimeline({ injuries, on }: { injuries: AthleteRow['injuries']; on: string }) {
  const { ref, width } = useElementSize();
  const end = dayNumber(on);
  const start = Math.min(end - LEAST_YEARS * 365, ...injuries.map((i) => dayNumber(i.date) - 60));
  const xOf = (day: number) => PAD + ((day - start) / (end - start)) * Math.max(0, width - 2 * PAD);
  const firstYear = Number(new Date(start * 86_400_000).toISOString().slice(0, 4)) + 1;
  const years = Array.from({ length: 60 }, (_, i) => firstYear + i).filter(
    (y) => dayNumber(`${y}-01-01`) <= end,
  );
  const step = Math.ceil(years.length / Math.max(1, Math.floor(width / 60)));
  return (
    <div ref={ref} className={classes.timeline}>
      <svg width={width} height={HEIGHT} role="img" aria-label={`${injuries.length} injuries over time`}>
        <line x1={PAD} x2={width - PAD} y1={40} y2={40} stroke="var(--line)" strokeWidth="2" />
        {years.map((year, i) =>
          i % step === 0 ? (
            <g key={year}>
              <line
                x1={xOf(dayNumber(`${year}-01-01`))}
                x2={xOf(dayNumber(`${year}-01-01`))}
                y1={36}
                y2={44}
                stroke="var(--muted)"
              />
              <text x={xOf(dayNumber(`${year}-01-01`))} y={60} className={classes.year}>
                {year}
              </text>
            </g>
          ) : null,
        )}
        {injuries.map((injury) => {
          const x = xOf(dayNumber(injury.date));
          const colour = injury.side === 'central' ? 'var(--muted)' : `var(--${injury.side})`;
          return (
            <g key={injury.id}>
              <title>
                {REGION_LABEL[injury.region]}, {SIDE_LABEL[injury.side]}, {dayText(injury.date)}
                {injury.what ? `: ${injury.what}` : ''}
                {injury.operated ? ' (operated)' : ''}
              </title>
              {injury.operated ? (
                <line
                  x1={x}
                  x2={Math.min(width - PAD, xOf(dayNumber(injury.date) + 365))}
                  y1={40}
                  y2={40}
                  stroke={colour}
                  strokeWidth="6"
                  opacity="0.45"
                />
              ) : null}
              <path
                d={MARK[injury.side]}
                transform={`translate(${x} 40)`}
                fill={injury.operated ? colour : 'var(--card)'}
                stroke={colour}
                strokeWidth="1.8"
                strokeLinejoin="round"
              />
              <text x={Math.min(width - 60, Math.max(50, x))} y={20} className={classes.year}>
                {REGION_LABEL[injury.region]}
              </text>
            </g>
          );
        })}
      </svg>
    </div>
  );
}
