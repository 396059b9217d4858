import { lazy, type ReactNode, Suspense } from 'react';
import { createBrowserRouter } from 'react-router';
import { ProjectsPage } from '../pages/projects/ProjectsPage';
import { DeliveredPage } from '../pages/delivered/DeliveredPage';
import { RendersPage } from '../pages/renders/RendersPage';
import { Broken } from '../pages/Broken';
import { Missing } from '../pages/Missing';

/** The editor is most of the application: the other pages do not wait for it. */
const EditorPage = lazy(async () => ({ default: (await import('../editor/EditorPage')).EditorPage }));

const waiting = (page: ReactNode) => (
  <Suspense fallback={<main className="grid h-full place-items-center text-ink-2">Opening the editor …</main>}>
    {page}
  </Suspense>
);

export const router = createBrowserRouter([
  {
    errorElement: <Broken />,
    children: [
      { path: '/', element: <ProjectsPage /> },
      { path: '/renders', element: <RendersPage /> },
      { path: '/delivered/:render', element: <DeliveredPage /> },
      { path: '/projects/:project', element: waiting(<EditorPage />) },
      { path: '/projects/:project/scenes/:scene', element: waiting(<EditorPage />) },
      { path: '*', element: <Missing /> },
    ],
  },
]);
