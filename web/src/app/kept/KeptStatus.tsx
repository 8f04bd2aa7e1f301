import { allTyped } from '../../features/screen/typedResults.ts';
import { useResultSender, useSendTyped } from '../../features/screen/useResultSender.ts';
import { unsentSessions } from '../../features/run/outbox.ts';
import { useKeptRevision } from './useKept.ts';
import classes from '../Shell.module.css';

/** Sends what this device still holds, and says in the header how much that is while the server cannot be reached. */
export function KeptStatus() {
  useSendTyped();
  useKeptRevision();
  const sender = useResultSender();
  const values = allTyped().length;
  const runs = unsentSessions().length;
  if (!sender.offline || values + runs === 0) return null;
  const parts = [
    ...(values > 0 ? [`${values} ${values === 1 ? 'value' : 'values'}`] : []),
    ...(runs > 0 ? [`${runs} ${runs === 1 ? 'session' : 'sessions'}`] : []),
  ];
  return (
    <div className={classes.kept} role="status">
      The server cannot be reached. {parts.join(' and ')} kept on this device; sent as soon as it answers.
    </div>
  );
}
