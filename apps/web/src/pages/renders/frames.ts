/** Pictures that move, read frame by frame by the browser's own decoder: what an <img> plays goes by a clock of its own. */
import { urlOf } from '@kite/api/call';
import { RENDERS, type Render } from '@kite/api/renders';
import { formatOf } from '@kite/core/delivery/formats/table';

export interface Frames {
  readonly width: number;
  readonly height: number;
  /** How long all of them stay together, in milliseconds. */
  readonly length: number;
  /** What shows at a time in milliseconds; the last one after the end. To be closed by who asked. */
  at(time: number): Promise<VideoFrame>;
}

const isDrawn = ({ settings }: Render): boolean => formatOf(settings.format).mime === 'image/svg+xml';

/** Whether the frames of a file can be read one by one here. */
export const canReadFrames = (render: Render): boolean =>
  formatOf(render.settings.format).shownAs === 'image' && !isDrawn(render) && 'ImageDecoder' in globalThis;

/** Until it is aborted. Rejects where the file cannot be had or read. */
export const readFrames = async (render: Render, signal: AbortSignal): Promise<Frames> => {
  const response = await fetch(urlOf(RENDERS.file, { id: render.id }), { signal });
  if (!response.ok) throw new Error(`The file could not be read: ${response.status}`);
  const { mime } = formatOf(render.settings.format);
  const decoder = new ImageDecoder({ data: await response.arrayBuffer(), type: mime });
  signal.addEventListener('abort', () => decoder.close());
  await decoder.completed;
  const count = decoder.tracks.selectedTrack?.frameCount ?? 1;
  const ends: number[] = [];
  let size = { width: 1, height: 1 };
  for (let frameIndex = 0; frameIndex < count; frameIndex++) {
    const { image } = await decoder.decode({ frameIndex });
    size = { width: image.displayWidth, height: image.displayHeight };
    ends.push((ends.at(-1) ?? 0) + (image.duration ?? 0) / 1000);
    image.close();
    signal.throwIfAborted();
  }
  return {
    ...size,
    length: ends.at(-1) ?? 0,
    at: async (time) => {
      const at = ends.findIndex((end) => time < end);
      return (await decoder.decode({ frameIndex: at < 0 ? count - 1 : at })).image;
    },
  };
};
