import { PROJECTS } from '@kite/api/projects';
import { useQuery } from '@tanstack/react-query';
import { useRef } from 'react';
import { ask } from '../../api/client';
import { useMoving } from '../../preview/useMoving';
import { useSeen } from '../../ui/useSeen';

const BOX = { width: 280, height: 158 };

/** A project's first scene, which plays while it is pointed at or focused. */
export const Moving = ({ project, revision, playing }: { project: string; revision: string; playing: boolean }) => {
  const frame = useRef<HTMLDivElement>(null);
  const seen = useSeen(frame);
  const { data } = useQuery({
    enabled: seen,
    queryKey: ['project', project, revision],
    queryFn: () => ask(PROJECTS.open, { id: project }),
    staleTime: Infinity,
  });
  const doc = data?.document;
  const { canvas, style } = useMoving(doc, doc?.order[0], BOX, playing);
  return (
    <div ref={frame} className="grid h-[158px] place-items-center overflow-hidden bg-surround">
      <canvas ref={canvas} aria-hidden style={style} />
    </div>
  );
};
