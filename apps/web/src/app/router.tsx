import { lazy, type ReactNode, Suspense } from 'react';
import { createBrowserRouter } from 'react-router';
import { ProjectsPage } from '../pages/projects/ProjectsPage';
import { DeliveredPage } from '../pages/delivered/DeliveredPage';
import { RendersPage } from '../pages/renders/RendersPage';
import { Broken } from '../pages/Broken';
import { Missing } from '../pages/Missing';

/** The editor and what knows the language of formulas are most of the application: the other pages do not wait for them. */
const EditorPage = lazy(async () => ({ default: (await import('../editor/EditorPage')).EditorPage }));

const GuidePage = lazy(async () => ({ default: (await import('../pages/help/GuidePage')).GuidePage }));
const CardsPage = lazy(async () => ({ default: (await import('../pages/help/CardsPage')).CardsPage }));
const KeyboardPage = lazy(async () => ({ default: (await import('../pages/help/KeyboardPage')).KeyboardPage }));
const FormulasPage = lazy(async () => ({ default: (await import('../pages/help/FormulasPage')).FormulasPage }));

const waiting = (page: ReactNode) => (
  <Suspense fallback={<main className="grid h-full place-items-center text-ink-2">One moment …</main>}>{page}</Suspense>
);

export const router = createBrowserRouter([
  {
    errorElement: <Broken />,
    children: [
      { path: '/', element: <ProjectsPage /> },
      { path: '/renders', element: <RendersPage /> },
      { path: '/delivered/:render', element: <DeliveredPage /> },
      { path: '/help', element: waiting(<GuidePage />) },
      { path: '/help/cards', element: waiting(<CardsPage />) },
      { path: '/help/keyboard', element: waiting(<KeyboardPage />) },
      { path: '/help/:page', element: waiting(<GuidePage />) },
      { path: '/help/formulas', element: waiting(<FormulasPage />) },
      { path: '/projects/:project', element: waiting(<EditorPage />) },
      { path: '/projects/:project/deliveries', element: waiting(<EditorPage />) },
      { path: '/projects/:project/scenes/:scene', element: waiting(<EditorPage />) },
      { path: '*', element: <Missing /> },
    ],
  },
]);
