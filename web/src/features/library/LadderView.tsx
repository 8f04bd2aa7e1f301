import { ladderSteps } from '@yonder/core/reference';
import type { Drill, HarderBy } from '@yonder/core/reference';
import { useReference } from '../../app/reference.tsx';
import classes from './Library.module.css';

const MARK: Readonly<Record<HarderBy, string>> = {
  load: '▲',
  lever: '↔',
  range: '◠',
  stability: '∿',
  speed: '»',
  attention: '✳',
  endurance: '≡',
};

/** The ladder of a drill, easiest at the foot, with what makes each next level harder between them. */
export function LadderView({ drill, onPick }: { drill: Drill; onPick: (id: string) => void }) {
  const reference = useReference();
  const ladder = reference.ladders.get(drill.ladder);
  if (!ladder) return null;
  const steps = ladderSteps(reference, ladder);
  return (
    <section aria-label={`Ladder: ${ladder.name}`}>
      <h3 className={classes.ladderName}>
        {ladder.name} <span className="muted">{ladder.drills.length} levels, easiest below</span>
      </h3>
      <ol className={classes.ladder} reversed>
        {[...ladder.drills].reverse().map((id) => {
          const own = reference.drills.get(id);
          if (!own) return null;
          const up = steps.find((step) => step.to === id);
          return (
            <li key={id}>
              <button type="button" aria-current={id === drill.id || undefined} onClick={() => onPick(id)}>
                <b>
                  {own.level}. {own.name}
                </b>
                <span className="muted">demand {own.demandIndex}</span>
              </button>
              {up ? (
                <div className={classes.step}>
                  {up.harder.map(({ by, text }) => (
                    <span key={text}>
                      <b>
                        {MARK[by]} {by}
                      </b>{' '}
                      {text}
                    </span>
                  ))}
                </div>
              ) : null}
            </li>
          );
        })}
      </ol>
    </section>
  );
}
