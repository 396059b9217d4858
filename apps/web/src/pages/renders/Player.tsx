import { urlOf } from '@kite/api/call';
import { RENDERS, type Render } from '@kite/api/renders';
import { formatOf } from '@kite/core/delivery/formats/table';
import type { RefObject } from 'react';
import { bannerUrl } from '../../api/client';

/** What came of a render, as it plays by itself. */
export const Player = ({ render, video }: { render: Render; video?: RefObject<HTMLVideoElement | null> }) => {
  const { result, settings } = render;
  if (!result) return null;
  const url = urlOf(RENDERS.file, { id: render.id });
  const fit = { maxWidth: '100%', maxHeight: '100%' };
  switch (formatOf(settings.format).shownAs) {
    case 'video':
      return (
        <video key={render.id} {...(video && { ref: video })} src={url} controls autoPlay loop muted style={fit} />
      );
    case 'image':
      return <img key={render.id} src={url} alt={render.sceneName} style={fit} />;
    case 'file':
      return (
        <p className="max-w-md rounded-md bg-paper px-4 py-3 text-center">
          {formatOf(settings.format).label}: a file for other programs. Download it to see it there.
        </p>
      );
    case 'page':
      return (
        <iframe
          key={render.id}
          title={`Banner ${render.sceneName}`}
          src={bannerUrl(render.id)}
          sandbox="allow-scripts allow-popups"
          width={result.width}
          height={result.height}
          className="shrink-0 border-0"
        />
      );
  }
};
