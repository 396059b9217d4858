import type { Render } from '@kite/api/renders';
import { formatOf } from '@kite/core/delivery/formats/table';
import { canReadFrames } from './frames';

const same = (a: Render, b: Render): boolean =>
  a.projectId === b.projectId &&
  a.settings.format === b.settings.format &&
  (a.delivery !== null ? a.delivery === b.delivery : b.delivery === null && a.sceneName === b.sceneName);

/** The other files of the same delivery, or of the same scene in the same format, the newest first. */
export const comparable = (render: Render, all: readonly Render[]): readonly Render[] =>
  render.result && formatOf(render.settings.format).shownAs !== 'file'
    ? all.filter((other) => other.id !== render.id && other.result !== null && same(render, other))
    : [];

/** Whether both show the same moment at the same time, so that one can be taken from the other. */
export const showsDifference = (a: Render, b: Render): boolean =>
  [a, b].every((render) => {
    const { shownAs } = formatOf(render.settings.format);
    return shownAs === 'video' || (shownAs === 'image' && render.result?.frames === 1) || canReadFrames(render);
  });
