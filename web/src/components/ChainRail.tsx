import { standingBody } from '@yonder/core/figure';
import type { Region } from '@yonder/core/domain';
import type { FindingsReport } from '@yonder/core/findings';
import { REGION_LABEL } from '@yonder/core/words';
import classes from './ChainRail.module.css';
import { SideMark } from './SideMark.tsx';
import { RAIL_LABEL, stateOfSide } from './sideState.ts';
import type { RailState } from './sideState.ts';

interface Props {
  /** Findings the joints are coloured by. */
  report: FindingsReport;
  /** The selected joint. */
  region: Region;
  /** A joint was pressed. */
  onSelect: (region: Region) => void;
}

/** Heights of the rows that name the regions, in the units of the drawing. */
const ROWS: readonly (readonly [Region, number])[] = [
  ['shoulder', 40],
  ['thoracic', 66],
  ['elbow', 92],
  ['lumbopelvic', 118],
  ['wrist-hand', 145],
  ['hip-groin', 171],
  ['knee', 200],
  ['ankle-foot', 240],
];
const WIDTH = 146;
const HEIGHT = 262;
const ROWS_FROM = 86;
/** The figure takes the left of the drawing, the rows the rest. */
const BODY = standingBody(40, 6, 2.36);
const PLACES = ROWS.flatMap(([region, row]) => {
  const joints = BODY.joints[region];
  return joints ? [[region, { ...joints, row }] as const] : [];
});

function Joint({
  at,
  side,
  state,
}: {
  at: readonly [number, number];
  side: 'left' | 'right';
  state: RailState;
}) {
  return (
    <g transform={`translate(${at[0] - 5} ${at[1] - 5})`}>
      <circle cx="5" cy="5" r="6" fill="var(--card)" />
      <svg width="10" height="10" overflow="visible">
        <SideMark side={side} state={state} size={10} />
      </svg>
    </g>
  );
}

function BodyFigure({ report, region }: { report: FindingsReport; region: Region }) {
  return (
    <svg className={classes.figure} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden="true">
      <g className={classes.body}>
        {BODY.shapes.map(({ d, fill, line, width }, i) => (
          <path key={i} d={d} data-tone={fill} data-edge={line} strokeWidth={width} />
        ))}
      </g>
      {PLACES.map(([r, place]) => (
        <path
          key={r}
          className={classes.leader}
          data-selected={r === region || undefined}
          d={`M${place.right[0] + 6} ${place.right[1]}L${ROWS_FROM - 3} ${place.row}`}
        />
      ))}
      {PLACES.map(([r, place]) => (
        <g key={r}>
          {r === region ? (
            <ellipse
              cx={(place.left[0] + place.right[0]) / 2}
              cy={place.left[1]}
              rx={(place.right[0] - place.left[0]) / 2 + 9}
              ry="9"
              className={classes.halo}
            />
          ) : null}
          <Joint at={place.left} side="left" state={stateOfSide(report, r, 'left')} />
          <Joint at={place.right} side="right" state={stateOfSide(report, r, 'right')} />
        </g>
      ))}
    </svg>
  );
}

/** The kinetic chain at the left of a workspace: selects the region, and shows each side's state by shape and colour. */
export function ChainRail({ report, region, onSelect }: Props) {
  const left = stateOfSide(report, region, 'left');
  const right = stateOfSide(report, region, 'right');
  return (
    <aside className={`card ${classes.rail}`} aria-label="Regions">
      <div className={classes.chain}>
        <BodyFigure report={report} region={region} />
        <div role="radiogroup" aria-label="Region" className={classes.rows}>
          {PLACES.map(([r, place]) => (
            <button
              key={r}
              type="button"
              role="radio"
              aria-checked={r === region}
              className={classes.row}
              style={{ top: `${(place.row / HEIGHT) * 100}%`, left: `${(ROWS_FROM / WIDTH) * 100}%` }}
              onClick={() => onSelect(r)}
              aria-label={`${REGION_LABEL[r]}: left ${RAIL_LABEL[stateOfSide(report, r, 'left')]}, right ${RAIL_LABEL[stateOfSide(report, r, 'right')]}`}
            >
              {REGION_LABEL[r]}
            </button>
          ))}
        </div>
      </div>
      <p className={classes.summary}>
        <b>{REGION_LABEL[region]}</b>
        <span>
          <SideMark side="left" state={left} /> left {RAIL_LABEL[left]}
        </span>
        <span>
          <SideMark side="right" state={right} /> right {RAIL_LABEL[right]}
        </span>
      </p>
      <p className={classes.legend}>
        Filled is short, half likely short, dotted not screened. Seen from behind.
      </p>
    </aside>
  );
}
