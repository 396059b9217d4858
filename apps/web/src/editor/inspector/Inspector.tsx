import type { ControllerLayer, Scene } from '@kite/core/document/types';
import { FirstSteps } from '../firstSteps/FirstSteps';
import { KnobsCard, SelectedCards } from '../later';
import { useSlice } from '../store/context';
import { sceneOf } from '../store/state';
import { SceneCard } from './cards/SceneCard';

/** The controllers that have something to be tuned. */
const withKnobs = (scene: Scene): ControllerLayer[] =>
  scene.order.flatMap((id) => {
    const layer = scene.layers[id];
    return layer?.kind === 'controller' && layer.panel.length > 0 ? [layer] : [];
  });

/** Cards for what is selected; while nothing is, the scene's own and all its knobs. */
export const Inspector = () => {
  const { scene, selected } = useSlice((s) => {
    const { layers } = sceneOf(s);
    return {
      scene: sceneOf(s),
      selected: s.selection.keys.length > 0 || s.selection.layers.some((id) => layers[id]),
    };
  });
  return (
    <aside
      aria-label="Inspector"
      data-area="inspector"
      tabIndex={0}
      className="flex w-[296px] shrink-0 flex-col gap-2 overflow-y-auto border-l border-line bg-paper-2 p-2"
    >
      {selected ? (
        <SelectedCards />
      ) : (
        <>
          <FirstSteps />
          {withKnobs(scene).map((layer) => (
            <KnobsCard key={layer.id} layer={layer} named />
          ))}
          <SceneCard key={scene.id} scene={scene} />
        </>
      )}
    </aside>
  );
};
