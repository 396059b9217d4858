import type { Render } from '@kite/api/renders';
import { useEffect, useRef, useState } from 'react';
import { type Frames, readFrames } from './frames';

const drawDifference = async (canvas: HTMLCanvasElement, both: readonly [Frames, Frames], time: number) => {
  const [first, second] = await Promise.all(both.map((frames) => frames.at(time)));
  const context = canvas.getContext('2d');
  if (context && first && second) {
    context.globalCompositeOperation = 'copy';
    context.drawImage(first, 0, 0, canvas.width, canvas.height);
    context.globalCompositeOperation = 'difference';
    context.drawImage(second, 0, 0, canvas.width, canvas.height);
  }
  first?.close();
  second?.close();
};

/** Plays what differs between two pictures that move, by the length of the first, until it is ended. */
const play = async (canvas: HTMLCanvasElement, [render, other]: readonly [Render, Render], ended: AbortSignal) => {
  const [first, second] = await Promise.all([readFrames(render, ended), readFrames(other, ended)]);
  canvas.width = first.width;
  canvas.height = first.height;
  const start = performance.now();
  while (!ended.aborted) {
    await drawDifference(canvas, [first, second], first.length > 0 ? (performance.now() - start) % first.length : 0);
    canvas.dataset.drawn = 'true';
    await new Promise(requestAnimationFrame);
  }
};

interface FramesDifferenceProps {
  render: Render;
  other: Render;
  label: string;
}

/** One picture that moves taken from another, frame by frame. */
export const FramesDifference = ({ render, other, label }: FramesDifferenceProps) => {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [failed, setFailed] = useState('');
  useEffect(() => {
    const ended = new AbortController();
    if (canvas.current) {
      play(canvas.current, [render, other], ended.signal).catch((error: Error) => {
        if (!ended.signal.aborted) setFailed(error.message);
      });
    }
    return () => ended.abort();
  }, [render, other]);
  if (failed) return <p className="max-w-md rounded-md bg-paper px-4 py-3 text-center">{failed}</p>;
  return (
    <canvas ref={canvas} role="img" aria-label={label} data-testid="difference" className="max-h-full max-w-full" />
  );
};
