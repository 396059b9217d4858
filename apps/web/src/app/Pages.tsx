import { ErrorBoundary } from 'react-error-boundary';
import { Route, Routes, useLocation } from 'react-router';
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

/** All pages by their addresses. One that fails gives way to one that says so, until another is gone to. */
export const Pages = () => (
  <ErrorBoundary fallback={<Broken />} resetKeys={[useLocation().pathname]}>
    <Routes>
      <Route path="/" element={<ProjectsPage />} />
      <Route path="/renders" element={<RendersPage />} />
      <Route path="/delivered/:render" element={<DeliveredPage />} />
      <Route path="/help" element={<GuidePage />} />
      <Route path="/help/cards" element={<CardsPage />} />
      <Route path="/help/keyboard" element={<KeyboardPage />} />
      <Route path="/help/:page" element={<GuidePage />} />
      <Route path="/help/formulas" element={<FormulasPage />} />
      <Route path="/projects/:project" element={<EditorPage />} />
      <Route path="/projects/:project/deliveries" element={<EditorPage />} />
      <Route path="/projects/:project/versions" element={<EditorPage />} />
      <Route path="/projects/:project/scenes/:scene" element={<EditorPage />} />
      <Route path="*" element={<Missing />} />
    </Routes>
  </ErrorBoundary>
);
