import { ArrowLeft } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { buttonLook } from '../../ui/Button';
import { useSlice } from '../store/context';

/** The head of a page that stands instead of the scene: the way back, what it is, and what can be done on it. */
export const PageBar = ({ title, children }: { title: string; children: ReactNode }) => {
  const { project, scene } = useSlice((s) => ({ project: s.doc.id, scene: s.sceneId }));
  return (
    <header className="flex items-center gap-2 px-4 py-2.5">
      <Link to={`/projects/${project}/scenes/${scene}`} className={buttonLook('outline')}>
        <ArrowLeft size={14} /> Back to the scene
      </Link>
      <h2 className="min-w-0 flex-1 truncate pl-2 text-lg font-semibold">{title}</h2>
      {children}
    </header>
  );
};
