import { ActionIcon, Button, Loader, useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import { IconMoon, IconSun } from '@tabler/icons-react';
import { Suspense } from 'react';
import { Link, NavLink, Outlet, useLocation } from 'react-router';
import { ErrorBoundary } from '../components/ErrorBoundary.tsx';
import { useSignOutMutation } from '../features/auth/authEndpoints.ts';
import { KeptStatus } from './kept/KeptStatus.tsx';
import { LeaveGuard } from './kept/LeaveGuard.tsx';
import { useSendUnsent } from '../features/run/useSendUnsent.ts';
import { ReferenceProvider } from './reference.tsx';
import { Shortcuts } from './Shortcuts.tsx';
import classes from './Shell.module.css';
import { useAppSelector } from './store.ts';
import type { RootState } from './store.ts';

/** Contour lines of a survey map, quiet in a corner of the header. */
function Contours() {
  const lines = [0, 1, 2, 3, 4, 5, 6];
  return (
    <svg className={classes.contours} viewBox="0 0 480 46" preserveAspectRatio="none" aria-hidden="true">
      {lines.map((i) => (
        <path
          key={i}
          d={`M0 ${40 - i * 2} C 90 ${34 - i * 6}, 150 ${52 - i * 3}, 235 ${26 - i * 5} S 380 ${8 + i * 6}, 480 ${30 - i * 5}`}
          fill="none"
          stroke="currentColor"
          strokeWidth="1"
        />
      ))}
    </svg>
  );
}

function ThemeToggle() {
  const { setColorScheme } = useMantineColorScheme();
  const scheme = useComputedColorScheme('light');
  const other = scheme === 'light' ? 'dark' : 'light';
  return (
    <ActionIcon
      variant="transparent"
      onClick={() => setColorScheme(other)}
      aria-label={`Switch to ${other} theme`}
    >
      {scheme === 'light' ? <IconMoon size={18} /> : <IconSun size={18} />}
    </ActionIcon>
  );
}

/** Is the server being asked for anything that the page shows? */
const isAsking = (state: RootState): boolean =>
  Object.values(state.api.queries).some((query) => query?.status === 'pending');

/** Header, navigation and the place for a page. */
export function Shell() {
  const me = useAppSelector((state) => state.session.me);
  const { pathname } = useLocation();
  const [signOut] = useSignOutMutation();
  const asking = useAppSelector(isAsking);
  useSendUnsent();
  return (
    <div className={classes.page}>
      <header className={classes.header}>
        <a className={classes.skip} href="#main">
          Skip to content
        </a>
        <Contours />
        <Link to="/today" className={classes.brand}>
          Yonder Ridge
        </Link>
        <nav className={classes.nav} aria-label="Main">
          <NavLink to="/today">Today</NavLink>
          <NavLink to="/athletes">Athletes</NavLink>
          <NavLink to="/library">Library</NavLink>
          <NavLink to="/methods">Methods</NavLink>
          <NavLink to="/figures">Figures</NavLink>
          {me?.clinician.role === 'owner' ? (
            <>
              <NavLink to="/practice">Practice</NavLink>
              <NavLink to="/audit">Audit</NavLink>
            </>
          ) : null}
        </nav>
        <div className={classes.tools}>
          <Link to="/account" className={classes.who}>
            {me?.clinician.name}, {me?.practice.name}
          </Link>
          <ThemeToggle />
          <Button variant="transparent" size="compact-sm" onClick={() => void signOut()}>
            Sign out
          </Button>
        </div>
      </header>
      <Shortcuts />
      <main id="main" className={classes.main} aria-busy={asking} data-place={pathname}>
        <ErrorBoundary place={pathname}>
          <Suspense fallback={<Loader m="xl" aria-label="Loading" />}>
            <ReferenceProvider>
              <KeptStatus />
              <Outlet />
            </ReferenceProvider>
            <LeaveGuard />
          </Suspense>
        </ErrorBoundary>
      </main>
    </div>
  );
}
