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

/** Joints of the figure seen from behind, so that left is on the left, and the height of the row that names them. */
interface Place {
  readonly left: readonly [number, number];
  readonly right: readonly [number, number];
  readonly row: number;
}

/** In the units of the drawing: the figure takes the left 76 of 146, the rows the rest; 300 high. */
const PLACES: readonly (readonly [Region, Place])[] = [
  ['shoulder', { left: [22, 62], right: [54, 62], row: 50 }],
  ['thoracic', { left: [33, 84], right: [43, 84], row: 77 }],
  ['elbow', { left: [15, 104], right: [61, 104], row: 104 }],
  ['lumbopelvic', { left: [33, 121], right: [43, 121], row: 131 }],
  ['wrist-hand', { left: [10, 148], right: [66, 148], row: 158 }],
  ['hip-groin', { left: [29, 150], right: [47, 150], row: 185 }],
  ['knee', { left: [30, 208], right: [46, 208], row: 220 }],
  ['ankle-foot', { left: [30, 270], right: [46, 270], row: 268 }],
];
const WIDTH = 146;
const HEIGHT = 292;
const ROWS_FROM = 82;

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
        <circle cx="38" cy="24" r="13" />
        <path d="M38 37v13M22 62Q38 50 54 62M22 62 15 104 10 148M54 62l7 42 5 44" />
        <path d="M22 62Q27 98 31 122L29 150 30 208 30 270M54 62Q49 98 45 122L47 150 46 208 46 270M31 122Q38 128 45 122" />
        <path d="M30 270 23 284h9zM46 270l7 14h-9zM10 148l-2 11M66 148l2 11" />
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
              cx="38"
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
