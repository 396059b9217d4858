import type { Project } from '@kite/core/document/types';
import type { Size } from '@kite/core/geometry/size';
import { useQuery } from '@tanstack/react-query';
import { useMoving } from './useMoving';

interface MovingProps {
  /** Where its picture is. */
  poster: string;
  /** By what its document is kept, and how it is fetched once it plays. */
  queryKey: readonly string[];
  fetchDocument: () => Promise<{ readonly document: Project }>;
  /** In CSS pixels: the same object from one call to the next. */
  box: Size;
  playing: boolean;
}

/** What is played, over the picture from its first frame on. */
const Playing = ({ queryKey, fetchDocument, box }: Omit<MovingProps, 'poster' | 'playing'>) => {
  const { data } = useQuery({ queryKey, queryFn: fetchDocument, staleTime: Infinity });
  const doc = data?.document;
  const { canvas, style } = useMoving(doc, doc?.order[0], box);
  return <canvas ref={canvas} aria-hidden className="peer absolute" style={style} />;
};

/** The first scene of a project: a picture, which plays while it is pointed at or focused. */
export const Moving = ({ poster, playing, ...playable }: MovingProps) => (
  <span
    className="relative grid place-items-center overflow-hidden bg-surround"
    style={{ height: playable.box.height }}
  >
    {playing && <Playing {...playable} />}
    <img
      key={poster}
      src={poster}
      alt=""
      loading="lazy"
      decoding="async"
      // One that cannot be had leaves its room empty.
      onError={({ currentTarget }) => (currentTarget.hidden = true)}
      className="absolute size-full object-contain peer-data-drawn:invisible"
    />
  </span>
);
