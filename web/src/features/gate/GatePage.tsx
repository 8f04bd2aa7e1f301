import { useNavigate, useSearchParams } from 'react-router';
import type { Region } from '@yonder/core/domain';
import { REGIONS } from '@yonder/core/domain';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { GatePanel } from './GatePanel.tsx';

const isRegion = (value: string): value is Region => (REGIONS as readonly string[]).includes(value);

/** The whole gate as a page of its own: what is due, or all of it again; then back to where it was asked from. */
export function GatePage() {
  const { athlete } = useWorkspace();
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const regions = (search.get('for') ?? '').split(',').filter(isRegion);
  const next = search.get('then') === 'routine' ? 'routine' : 'story';
  return (
    <GatePanel
      regions={regions}
      all={search.get('all') === 'yes'}
      onDone={() => void navigate(`/athletes/${athlete.id}/${next}`)}
    />
  );
}
