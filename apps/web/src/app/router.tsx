import { createBrowserRouter } from 'react-router';
import { EditorPage } from '../editor/EditorPage';
import { ProjectsPage } from '../pages/projects/ProjectsPage';
import { RendersPage } from '../pages/renders/RendersPage';
import { Broken } from '../pages/Broken';
import { Missing } from '../pages/Missing';

export const router = createBrowserRouter([
  {
    errorElement: <Broken />,
    children: [
      { path: '/', element: <ProjectsPage /> },
      { path: '/renders', element: <RendersPage /> },
      { path: '/projects/:project', element: <EditorPage /> },
      { path: '/projects/:project/scenes/:scene', element: <EditorPage /> },
      { path: '*', element: <Missing /> },
    ],
  },
]);
