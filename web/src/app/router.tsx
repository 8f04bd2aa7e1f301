import { lazy, Suspense } from 'react';
import { createBrowserRouter, Navigate } from 'react-router';
import { RequireSignIn } from '../features/auth/RequireSignIn.tsx';
import { SignInPage } from '../features/auth/SignInPage.tsx';

// Each step is a bundle of its own: the door loads without them, and without the frame around them.
const Shell = lazy(() => import('./Shell.tsx').then((m) => ({ default: m.Shell })));
const TodayPage = lazy(() =>
  import('../features/today/TodayPage.tsx').then((m) => ({ default: m.TodayPage })),
);
const PracticePage = lazy(() =>
  import('../features/people/PracticePage.tsx').then((m) => ({ default: m.PracticePage })),
);
const AccountPage = lazy(() =>
  import('../features/people/AccountPage.tsx').then((m) => ({ default: m.AccountPage })),
);
const LinkPage = lazy(() => import('../features/people/LinkPage.tsx').then((m) => ({ default: m.LinkPage })));
const AthletesPage = lazy(() =>
  import('../features/athletes/AthletesPage.tsx').then((m) => ({ default: m.AthletesPage })),
);
const NewAthletePage = lazy(() =>
  import('../features/athletes/NewAthletePage.tsx').then((m) => ({ default: m.NewAthletePage })),
);
const ImportPage = lazy(() =>
  import('../features/import/ImportPage.tsx').then((m) => ({ default: m.ImportPage })),
);
const FiguresPage = lazy(() =>
  import('../features/figures/FiguresPage.tsx').then((m) => ({ default: m.FiguresPage })),
);
const MethodsPage = lazy(() =>
  import('../features/methods/MethodsPage.tsx').then((m) => ({ default: m.MethodsPage })),
);
const AthleteMethodsPage = lazy(() =>
  import('../features/methods/AthleteMethodsPage.tsx').then((m) => ({ default: m.AthleteMethodsPage })),
);
const LibraryPage = lazy(() =>
  import('../features/library/LibraryPage.tsx').then((m) => ({ default: m.LibraryPage })),
);
const DrillEditor = lazy(() =>
  import('../features/library/DrillEditor.tsx').then((m) => ({ default: m.DrillEditor })),
);
const AuditPage = lazy(() =>
  import('../features/practice/AuditPage.tsx').then((m) => ({ default: m.AuditPage })),
);
const AthleteWorkspace = lazy(() =>
  import('../features/athletes/AthleteWorkspace.tsx').then((m) => ({ default: m.AthleteWorkspace })),
);
const StoryPage = lazy(() =>
  import('../features/story/StoryPage.tsx').then((m) => ({ default: m.StoryPage })),
);
const GatePage = lazy(() => import('../features/gate/GatePage.tsx').then((m) => ({ default: m.GatePage })));
const ScreenPage = lazy(() =>
  import('../features/screen/ScreenPage.tsx').then((m) => ({ default: m.ScreenPage })),
);
const RidgePage = lazy(() =>
  import('../features/ridge/RidgePage.tsx').then((m) => ({ default: m.RidgePage })),
);
const RoutinePage = lazy(() =>
  import('../features/routine/RoutinePage.tsx').then((m) => ({ default: m.RoutinePage })),
);
const RunPage = lazy(() => import('../features/run/RunPage.tsx').then((m) => ({ default: m.RunPage })));
const ProgressPage = lazy(() =>
  import('../features/progress/ProgressPage.tsx').then((m) => ({ default: m.ProgressPage })),
);

export const router = createBrowserRouter([
  { path: '/sign-in', element: <SignInPage /> },
  {
    path: '/link',
    element: (
      <Suspense>
        <LinkPage />
      </Suspense>
    ),
  },
  {
    element: <RequireSignIn />,
    children: [
      {
        element: (
          <Suspense>
            <Shell />
          </Suspense>
        ),
        children: [
          { path: '/today', element: <TodayPage /> },
          { path: '/practice', element: <PracticePage /> },
          { path: '/account', element: <AccountPage /> },
          { path: '/athletes', element: <AthletesPage /> },
          { path: '/screenings', element: <ImportPage /> },
          { path: '/figures', element: <FiguresPage /> },
          { path: '/methods', element: <MethodsPage /> },
          { path: '/library', element: <LibraryPage /> },
          { path: '/audit', element: <AuditPage /> },
          { path: '/library/new', element: <DrillEditor /> },
          { path: '/library/own/:rowId', element: <DrillEditor /> },
          { path: '/athletes/new', element: <NewAthletePage /> },
          {
            path: '/athletes/:athleteId',
            element: <AthleteWorkspace />,
            children: [
              { index: true, element: <Navigate to="ridge" replace /> },
              { path: 'story', element: <StoryPage /> },
              { path: 'gate', element: <GatePage /> },
              { path: 'screen', element: <ScreenPage /> },
              { path: 'ridge', element: <RidgePage /> },
              { path: 'routine', element: <RoutinePage /> },
              { path: 'run', element: <RunPage /> },
              { path: 'progress', element: <ProgressPage /> },
              { path: 'methods', element: <AthleteMethodsPage /> },
            ],
          },
          { path: '*', element: <Navigate to="/today" replace /> },
        ],
      },
    ],
  },
]);
