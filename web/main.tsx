import '@fontsource-variable/public-sans';
import '@fontsource-variable/source-serif-4';
import './theme/base.css';
import { notifyManager, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, type RouteObject } from 'react-router';
// Of the two providers only this one can show a change at once, which the bench asks for.
import { RouterProvider } from 'react-router/dom';
import { doorKey } from './api/access/door.ts';
import { ApiError, hearWhenOut, pageBase } from './api/client.ts';
import { EditorPages } from './parts/shell/EditorPages.tsx';
import { Shell } from './parts/shell/Shell.tsx';
import { AccountScreen } from './screens/account/AccountScreen.tsx';
import { ApiScreen } from './screens/apiDocs/ApiScreen.tsx';
import { BackupsScreen } from './screens/backups/BackupsScreen.tsx';
import { BenchScreen } from './screens/bench/BenchScreen.tsx';
import { ChooseScreen } from './screens/choose/ChooseScreen.tsx';
import { DeliveryScreen } from './screens/delivery/DeliveryScreen.tsx';
import { ForgottenScreen } from './screens/door/ForgottenScreen.tsx';
import { InvitationScreen } from './screens/door/InvitationScreen.tsx';
import { NewPasswordScreen } from './screens/door/NewPasswordScreen.tsx';
import { DryRunScreen } from './screens/dryRun/DryRunScreen.tsx';
import { FilesScreen } from './screens/files/FilesScreen.tsx';
import { HistoryScreen } from './screens/history/HistoryScreen.tsx';
import { KitScreen } from './screens/kit/KitScreen.tsx';
import { LostScreen } from './screens/LostScreen.tsx';
import { LookOverScreen } from './screens/lookOver/LookOverScreen.tsx';
import { OriginalsScreen } from './screens/originals/OriginalsScreen.tsx';
import { ProjectLayout } from './screens/ProjectLayout.tsx';
import { PeopleScreen } from './screens/people/PeopleScreen.tsx';
import { ProgramsScreen } from './screens/programs/ProgramsScreen.tsx';
import { ProjectsScreen } from './screens/projects/ProjectsScreen.tsx';
import { ClientReviewScreen } from './screens/review/ClientReviewScreen.tsx';
import { ReviewLinksScreen } from './screens/review/ReviewLinksScreen.tsx';
import { SeriesScreen } from './screens/series/SeriesScreen.tsx';
import { TableScreen } from './screens/series/TableScreen.tsx';
import { SharesScreen } from './screens/shares/SharesScreen.tsx';
import { SheetEditor } from './screens/specBook/edit/SheetEditor.tsx';
import { ImportScreen } from './screens/specBook/import/ImportScreen.tsx';
import { ReviewScreen } from './screens/specBook/review/ReviewScreen.tsx';
import { VersionsScreen } from './screens/specBook/review/VersionsScreen.tsx';
import { SpecBookScreen } from './screens/specBook/SpecBookScreen.tsx';
import { paintRoot } from './theme/paint.ts';
import { Themed } from './theme/Themed.tsx';

// What is known is told before the browser paints again: a box that follows what was asked never falls back between.
notifyManager.setScheduler(queueMicrotask);

const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 2000,
      // What is refused stays refused; what did not arrive is asked for again.
      retry: (count, error) => count < 3 && error instanceof ApiError && error.offline,
    },
  },
});

// Whoever was signed out elsewhere is asked to sign in again.
hearWhenOut(() => void client.invalidateQueries({ queryKey: doorKey }));

const routes: RouteObject[] = [
  { path: '/invitation', element: <InvitationScreen />, errorElement: <LostScreen /> },
  { path: '/review', element: <ClientReviewScreen />, errorElement: <LostScreen /> },
  { path: '/forgotten', element: <ForgottenScreen />, errorElement: <LostScreen /> },
  { path: '/new-password', element: <NewPasswordScreen />, errorElement: <LostScreen /> },
  {
    element: <Shell />,
    errorElement: <LostScreen />,
    children: [
      { path: '/', element: <ProjectsScreen /> },
      { path: '/originals', element: <OriginalsScreen /> },
      { path: '/programs', element: <ProgramsScreen /> },
      { path: '/people', element: <PeopleScreen /> },
      { path: '/backups', element: <BackupsScreen /> },
      { path: '/shares', element: <SharesScreen /> },
      { path: '/account', element: <AccountScreen /> },
      { path: '/api/docs', element: <ApiScreen /> },
      { path: '/spec-book', element: <SpecBookScreen /> },
      { path: '/spec-book/:slug', element: <SpecBookScreen /> },
      { path: '/spec-book/:slug/versions', element: <VersionsScreen /> },
      {
        element: <EditorPages />,
        children: [
          { path: '/spec-book/new', element: <SheetEditor /> },
          { path: '/spec-book/new/review', element: <ReviewScreen /> },
          { path: '/spec-book/import', element: <ImportScreen /> },
          { path: '/spec-book/:slug/edit', element: <SheetEditor /> },
          { path: '/spec-book/:slug/edit/review', element: <ReviewScreen /> },
        ],
      },
      {
        path: '/projects/:projectId',
        element: <ProjectLayout />,
        children: [
          { index: true, element: <BenchScreen /> },
          { path: 'choose', element: <ChooseScreen /> },
          { path: 'series', element: <SeriesScreen /> },
          { element: <EditorPages />, children: [{ path: 'series/table', element: <TableScreen /> }] },
          { path: 'look-over', element: <LookOverScreen /> },
          { path: 'review', element: <ReviewLinksScreen /> },
          { path: 'history', element: <HistoryScreen /> },
          { path: 'files', element: <FilesScreen /> },
          { path: 'deliver', element: <DeliveryScreen /> },
          { path: 'deliver/:deliveryId', element: <KitScreen /> },
          { path: 'deliver/dry-runs/:runId', element: <DryRunScreen /> },
        ],
      },
      { path: '*', element: <LostScreen /> },
    ],
  },
];
const router = createBrowserRouter(routes, { basename: pageBase || '/' });

paintRoot(document.documentElement);
const root = document.getElementById('root');
if (root) {
  createRoot(root).render(
    <Themed>
      <QueryClientProvider client={client}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </Themed>,
  );
}
