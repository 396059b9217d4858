import { adjustableMoves } from '@kite/core/edits/moves';
import { membersOf } from '@kite/core/scene/groups';
import { useSlice } from '../store/context';
import { sceneOf } from '../store/state';
import { KeysCard } from './cards/KeysCard';
import { KnobsCard } from './cards/KnobsCard';
import { MoveCard } from './cards/MoveCard';
import { PlaceCard } from './cards/PlaceCard';
import { RoutineCard } from './cards/RoutineCard';
import { SetCard } from './cards/SetCard';
import { StaggerCard } from './cards/StaggerCard';
import { TimeCard } from './cards/TimeCard';
import { EaseCard } from './ease/EaseCard';
import { CommonCards } from './recipe/CommonCards';
import { RecipeCard } from './recipe/RecipeCard';

/** Cards for the layers and keyframes that are selected. */
export const SelectedCards = () => {
  const { scene, selection } = useSlice((s) => ({ scene: sceneOf(s), selection: s.selection }));
  const layers = selection.layers.flatMap((id) => scene.layers[id] ?? []);
  const only = layers.length === 1 ? layers[0] : undefined;
  const drawings = layers.filter((layer) => layer.kind === 'drawing');
  const members = membersOf(scene, selection.layers).flatMap((id) => {
    const layer = scene.layers[id];
    return layer?.kind === 'drawing' ? [layer] : [];
  });
  const moves = adjustableMoves(scene, selection.layers);
  return (
    <>
      {selection.keys.length > 0 && <KeysCard />}
      {selection.keys.length > 0 && <EaseCard />}
      {moves.map(({ applied, layers: on }) => (
        <MoveCard key={applied.id} applied={applied} layers={on} />
      ))}
      {scene.routines
        .filter((r) => r.players.some((id) => selection.layers.includes(id)))
        .map((routine) => (
          <RoutineCard key={routine.id} routine={routine} selected={selection.layers} />
        ))}
      {layers.length > 0 && <PlaceCard key={`place-${layers.map((l) => l.id).join()}`} layers={layers} />}
      {layers.length > 0 && (
        <StaggerCard key={`stagger-${layers.map((l) => l.id).join()}`} ids={layers.map((l) => l.id)} />
      )}
      {layers.length > 0 && <SetCard ids={layers.map((l) => l.id)} />}
      {drawings.length > 1 && drawings.length === layers.length && (
        <CommonCards key={`common-${drawings.map((l) => l.id).join()}`} layers={drawings} />
      )}
      {only && members.length > 0 && (
        <CommonCards key={`group-${only.id}`} layers={members} title="In all of the group" />
      )}
      {only?.kind === 'drawing' && <RecipeCard key={`recipe-${only.id}`} layer={only} />}
      {only?.kind === 'controller' && <KnobsCard key={`knobs-${only.id}`} layer={only} />}
      {layers.length > 0 && <TimeCard key={`time-${layers.map((l) => l.id).join()}`} layers={layers} />}
    </>
  );
};
