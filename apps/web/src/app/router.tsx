import { createBrowserRouter } from 'react-router';
import { ProjectsPage } from '../pages/projects/ProjectsPage';
import { Broken } from '../pages/Broken';
import { Missing } from '../pages/Missing';
import { later } from '../ui/later';

const MOMENT = <main className="grid h-full place-items-center text-ink-2">One moment …</main>;

/** The editor and what knows the language of formulas are most of the application: no other page waits for them. */
const EditorPage = later(async () => (await import('../editor/EditorPage')).EditorPage, MOMENT);
const RendersPage = later(async () => (await import('../pages/renders/RendersPage')).RendersPage, MOMENT);
const DeliveredPage = later(async () => (await import('../pages/delivered/DeliveredPage')).DeliveredPage, MOMENT);
const GuidePage = later(async () => (await import('../pages/help/GuidePage')).GuidePage, MOMENT);
const CardsPage = later(async () => (await import('../pages/help/CardsPage')).CardsPage, MOMENT);
const KeyboardPage = later(async () => (await import('../pages/help/KeyboardPage')).KeyboardPage, MOMENT);
const FormulasPage = later(async () => (await import('../pages/help/FormulasPage')).FormulasPage, MOMENT);

export const router = createBrowserRouter([
  {
    errorElement: <Broken />,
    children: [
      { path: '/', element: <ProjectsPage /> },
      { path: '/renders', element: <RendersPage /> },
      { path: '/delivered/:render', element: <DeliveredPage /> },
      { path: '/help', element: <GuidePage /> },
      { path: '/help/cards', element: <CardsPage /> },
      { path: '/help/keyboard', element: <KeyboardPage /> },
      { path: '/help/:page', element: <GuidePage /> },
      { path: '/help/formulas', element: <FormulasPage /> },
      { path: '/projects/:project', element: <EditorPage /> },
      { path: '/projects/:project/deliveries', element: <EditorPage /> },
      { path: '/projects/:project/scenes/:scene', element: <EditorPage /> },
      { path: '*', element: <Missing /> },
    ],
  },
]);
