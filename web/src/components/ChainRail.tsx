import { REGIONS } from '@yonder/core/domain';
import type { Region } from '@yonder/core/domain';
import type { FindingsReport } from '@yonder/core/findings';
import { nameOf } from '@yonder/core/words';
import { useReference } from '../app/reference.tsx';
import classes from './ChainRail.module.css';
import { SideMark } from './SideMark.tsx';
import { RAIL_LABEL, stateOfSide } from './sideState.ts';
import type { RailState } from './sideState.ts';

interface Props {
  report: FindingsReport;
  region: Region;
  onSelect: (region: Region) => void;
}

/** Joints of the figure seen from behind, so that left is on the left; in the units of the drawing (76 × 300). */
const JOINTS: Readonly<Record<string, { left: [number, number]; right: [number, number] }>> = {
  shoulder: { left: [22, 62], right: [54, 62] },
  thoracic: { left: [34, 84], right: [42, 84] },
  elbow: { left: [15, 104], right: [61, 104] },
  lumbopelvic: { left: [34, 120], right: [42, 120] },
  'wrist-hand': { left: [10, 146], right: [66, 146] },
  'hip-groin': { left: [29, 146], right: [47, 146] },
  knee: { left: [30, 206], right: [46, 206] },
  'ankle-foot': { left: [30, 270], right: [46, 270] },
};

/** From the head down, as the joints lie on a standing figure with the arms hanging. */
const TOP_DOWN: readonly Region[] = [
  'shoulder',
  'thoracic',
  'elbow',
  'lumbopelvic',
  'wrist-hand',
  'hip-groin',
  'knee',
  'ankle-foot',
];

function Joint({ at, side, state }: { at: [number, number]; side: 'left' | 'right'; state: RailState }) {
  return (
    <g transform={`translate(${at[0] - 6} ${at[1] - 6})`}>
      <circle cx="6" cy="6" r="7" fill="var(--card)" opacity="0.9" />
      <svg width="12" height="12" overflow="visible">
        <SideMark side={side} state={state} size={12} />
      </svg>
    </g>
  );
}

function BodyFigure({ report, region }: { report: FindingsReport; region: Region }) {
  return (
    <svg className={classes.figure} viewBox="0 0 76 300" aria-hidden="true">
      <g className={classes.body}>
        <circle cx="38" cy="24" r="13" />
        <path d="M38 36v14M22 60Q38 50 54 60M22 60 15 104 10 146M54 60l7 44 5 42" />
        <path d="M22 60Q26 96 30 122L29 146 30 206 30 270M54 60Q50 96 46 122L47 146 46 206 46 270M30 122Q38 128 46 122" />
        <path d="M30 270 22 284h10zM46 270l8 14H44zM10 146l-2 12M66 146l2 12" />
      </g>
      {TOP_DOWN.map((r) => {
        const joint = JOINTS[r];
        if (!joint) return null;
        return (
          <g key={r} data-selected={r === region || undefined} className={classes.joint}>
            <ellipse
              cx="38"
              cy={joint.left[1]}
              rx={(joint.right[0] - joint.left[0]) / 2 + 11}
              ry="12"
              className={classes.halo}
            />
            <Joint at={joint.left} side="left" state={stateOfSide(report, r, 'left')} />
            <Joint at={joint.right} side="right" state={stateOfSide(report, r, 'right')} />
          </g>
        );
      })}
    </svg>
  );
}

/** The kinetic chain at the left of a workspace: selects the region, and shows each side's state by shape and colour. */
export function ChainRail({ report, region, onSelect }: Props) {
  const reference = useReference();
  const regions = TOP_DOWN.filter((r) => REGIONS.includes(r));
  return (
    <aside className={`card ${classes.rail}`} aria-label="Regions">
      <BodyFigure report={report} region={region} />
      <div className={classes.rows} role="radiogroup" aria-label="Region">
        {regions.map((r) => {
          const left = stateOfSide(report, r, 'left');
          const right = stateOfSide(report, r, 'right');
          const name = nameOf(reference, r);
          return (
            <button
              key={r}
              type="button"
              role="radio"
              aria-checked={r === region}
              className={classes.row}
              onClick={() => onSelect(r)}
              aria-label={`${name}: left ${RAIL_LABEL[left]}, right ${RAIL_LABEL[right]}`}
            >
              <SideMark side="left" state={left} />
              <span className={classes.label}>{name}</span>
              <SideMark side="right" state={right} />
            </button>
          );
        })}
      </div>
      <p className={classes.legend}>
        filled = short, half = likely, dotted = not screened. Seen from behind.
      </p>
    </aside>
  );
}
