import { urlOf } from '@kite/api/call';
import { RENDERS, type Render } from '@kite/api/renders';
import { formatOf } from '@kite/core/delivery/formats/table';
import { type RefObject, useEffect, useRef } from 'react';
import { canReadFrames } from './frames';
import { FramesDifference } from './FramesDifference';
import { Player } from './Player';

/** How far two videos may be apart, in seconds: less than a frame at 30 a second. */
const APART = 0.03;

/** Lets the second video do what the first one does. */
const useTogether = (first: RefObject<HTMLVideoElement | null>, second: RefObject<HTMLVideoElement | null>): void => {
  useEffect(() => {
    let request = 0;
    const follow = () => {
      const [lead, other] = [first.current, second.current];
      if (lead && other) {
        if (lead.paused !== other.paused) void (lead.paused ? other.pause() : other.play().catch(() => undefined));
        if (Math.abs(lead.currentTime - other.currentTime) > APART) other.currentTime = lead.currentTime;
      }
      request = requestAnimationFrame(follow);
    };
    request = requestAnimationFrame(follow);
    return () => cancelAnimationFrame(request);
  }, [first, second]);
};

const Side = ({ render, name, video }: { render: Render; name: string; video: RefObject<HTMLVideoElement | null> }) => (
  <figure className="flex min-h-0 min-w-0 flex-1 flex-col items-center justify-center gap-2">
    <Player render={render} video={video} />
    <figcaption className="rounded-md bg-paper px-2 py-0.5 text-sm">{name}</figcaption>
  </figure>
);

interface ComparedProps {
  render: Render;
  other: Render;
  names: readonly [string, string];
  how: 'beside' | 'difference';
}

/** Two renders of the same, beside each other or one taken from the other: what is black did not change. */
export const Compared = ({ render, other, names, how }: ComparedProps) => {
  const [first, second] = [useRef<HTMLVideoElement>(null), useRef<HTMLVideoElement>(null)];
  useTogether(first, second);
  if (how === 'beside') {
    return (
      <div className="flex h-full w-full gap-5" data-testid="beside">
        <Side render={render} name={names[0]} video={first} />
        <Side render={other} name={names[1]} video={second} />
      </div>
    );
  }
  if (canReadFrames(render) && canReadFrames(other)) {
    return <FramesDifference render={render} other={other} label={`Difference from ${names[1]}`} />;
  }
  const over = 'pointer-events-none absolute inset-0 size-full mix-blend-difference';
  const url = urlOf(RENDERS.file, { id: other.id });
  return (
    <div className="relative isolate max-h-full max-w-full" data-testid="difference">
      <Player render={render} video={first} />
      {formatOf(other.settings.format).shownAs === 'video' ? (
        <video ref={second} src={url} autoPlay loop muted className={over} />
      ) : (
        <img src={url} alt={`Difference from ${names[1]}`} className={over} />
      )}
    </div>
  );
};
