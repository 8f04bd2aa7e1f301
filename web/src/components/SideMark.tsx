import type { Side } from '@yonder/core/domain';
import type { RailState } from './sideState.ts';

interface Props {
  /** Left ◁ and right ▷ keep their shape and colour everywhere; central is a diamond. */
  side: Side | 'both';
  /** Filled when short, half when likely, outline else, dotted when not screened. @default 'enough' */
  state?: RailState;
  /** Edge length in px. @default 14 */
  size?: number;
}

const PATH = {
  left: 'M13 1.5 2 8l11 6.5z',
  right: 'M3 1.5 14 8 3 14.5z',
  central: 'M8 1.5 14.5 8 8 14.5 1.5 8z',
  both: 'M8 1.5 14.5 8 8 14.5 1.5 8z',
} as const;

/** The fixed mark of a side, with its state by filling, not by colour alone. */
export function SideMark({ side, state = 'enough', size = 14 }: Props) {
  const colour = side === 'left' ? 'var(--left)' : side === 'right' ? 'var(--right)' : 'var(--muted)';
  const fill =
    state === 'short'
      ? colour
      : state === 'likely-short'
        ? `color-mix(in srgb, ${colour} 45%, transparent)`
        : 'none';
  return (
    <svg viewBox="0 0 16 16" width={size} height={size} aria-hidden="true" style={{ flex: 'none' }}>
      {state === 'blocked' ? (
        <path d="M3 3 13 13M13 3 3 13" stroke="var(--danger)" strokeWidth="2.4" />
      ) : (
        <path
          d={PATH[side]}
          fill={fill}
          stroke={colour}
          strokeWidth="1.6"
          strokeLinejoin="round"
          strokeDasharray={state === 'unscreened' ? '1.5 2.5' : undefined}
          opacity={state === 'unscreened' ? 0.7 : 1}
        />
      )}
    </svg>
  );
}
