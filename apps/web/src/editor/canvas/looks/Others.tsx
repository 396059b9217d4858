import { cutText } from '@kite/core/document/text';
import { throughBoth } from '@kite/core/geometry/through';
import { cornersThrough, layerBox } from '@kite/core/scene/bounds';
import { myself } from '../../../app/person';
import { colorOf, nameOf } from '../../people/looks';
import { useEditor, useSlice } from '../../store/context';
import type { Stage } from '../stage';
import { viewMatrix } from '../view';

/** Characters of a name beside what is chosen. */
const LONGEST = 24;

/** What others have chosen in this scene, each in their colour and by their name. */
export const Others = ({ view }: Stage) => {
  const editor = useEditor();
  const here = useSlice((s) => s.others.filter(({ scene, layers }) => scene === s.sceneId && layers.length > 0));
  const { frame } = useSlice((s) => ({
    doc: s.doc,
    fontsCame: s.fontsCame,
    frame: s.playing || here.length === 0 ? null : s.frame,
  }));
  if (frame === null) return null;
  const { program, scene } = editor;
  return (
    <g style={{ pointerEvents: 'none' }} fill="none" strokeWidth={1.5} strokeDasharray="5 3">
      {here.flatMap((other) =>
        other.layers.flatMap((id) => {
          const box = scene.layers[id] && layerBox(program, id, frame);
          if (!box) return [];
          const corners = cornersThrough(throughBoth(viewMatrix(view), program.throughAt(id, frame)), box);
          const [x, y] = corners.reduce((top, point) => (point[1] < top[1] ? point : top));
          return (
            <g key={other.tab + id} data-testid="other-chosen" stroke={colorOf(other)}>
              <polygon points={corners.map((point) => point.join()).join(' ')} />
              <text
                x={x}
                y={y - 5}
                fill={colorOf(other)}
                stroke="var(--paper)"
                strokeWidth={3}
                strokeDasharray="none"
                paintOrder="stroke"
                fontSize={11}
                fontWeight={600}
              >
                {cutText(nameOf(other, myself().id), LONGEST)}
              </text>
            </g>
          );
        }),
      )}
    </g>
  );
};
