import { Pause, Play } from 'lucide-react';
import { useRef, useState } from 'react';
import { IconButton } from '../../ui/Button';

const still = (): boolean => window.matchMedia('(prefers-reduced-motion: reduce)').matches;

/** What was rendered from the demo, over and over; it waits to be asked where motion is not wanted. */
export const MovingPicture = ({ src, about }: { src: string; about: string }) => {
  const video = useRef<HTMLVideoElement>(null);
  const [playing, setPlaying] = useState(!still());
  const turn = () => {
    if (playing) video.current?.pause();
    else void video.current?.play();
    setPlaying(!playing);
  };
  return (
    <figure className="flex flex-col gap-1">
      <div className="relative self-start overflow-hidden rounded-md border border-line">
        <video
          ref={video}
          src={src}
          aria-label={about}
          autoPlay={playing}
          muted
          loop
          playsInline
          className="block max-h-64"
        />
        <IconButton
          label={playing ? 'Hold the picture' : 'Play the picture'}
          className="absolute right-1.5 bottom-1.5 bg-paper"
          onClick={turn}
        >
          {playing ? <Pause size={14} /> : <Play size={14} />}
        </IconButton>
      </div>
      <figcaption className="text-sm text-ink-2">{about}</figcaption>
    </figure>
  );
};
