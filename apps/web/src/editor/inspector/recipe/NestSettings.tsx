import { paramsOfKnob } from '@kite/core/document/knobs';
import type { Param } from '@kite/core/document/params';
import type { DrawingLayer, Id, Item, Knob, PropertyRef, Scene } from '@kite/core/document/types';
import type { CardRef } from '@kite/core/edits/recipe';
import { removeItem } from '@kite/core/edits/recipe';
import { ownCopy, setKnobHere } from '@kite/core/edits/settings';
import { needsOf } from '@kite/core/recipe/needs';
import { frameInside } from '@kite/core/scene/inPlace';
import { Copy, ScanEye } from 'lucide-react';
import { useMemo } from 'react';
import { Button } from '../../../ui/Button';
import { removePartAsking } from '../../commands/formulas';
import { openNest } from '../../commands/nesting';
import { makeId } from '../../store/editor';
import { useEditor, useSlice } from '../../store/context';
import { shownValue } from '../../timeline/ribbons';
import { useShown } from '../../formula/useComputed';
import { ParamField } from '../fields/ParamField';
import { NAME_AND_VALUE } from '../row';

/** How many layers play a scene, in all scenes. */
const usesOf = (scenes: { readonly [id: Id]: Scene }, inner: Id): number =>
  Object.values(scenes).reduce(
    (sum, { layers }) => sum + Object.values(layers).filter((layer) => needsOf(layer).scenes.has(inner)).length,
    0,
  );

interface KnobHereProps {
  card: CardRef;
  knob: Knob;
  /** Where the knob is, in the scene inside. */
  at: PropertyRef;
  /** The frame of the scene inside that shows. */
  frame: number;
  /** The value that the nest sets for itself. */
  own: Item | undefined;
}

/** One knob of the scene inside: as that has it now, by its keyframes and formulas, or with a value of this nest's own. */
const KnobHere = ({ card, knob, at, frame, own }: KnobHereProps) => {
  const editor = useEditor();
  const param = paramsOfKnob(knob).value as Param;
  const [shown] = useShown([at], param);
  const value = shown?.at(frame) ?? param.default;
  const toggle = () => {
    if (own) removePartAsking(editor, card.layer, own.id, removeItem({ ...card, item: own.id }));
    else editor.edit(setKnobHere(card, knob, value, makeId()));
  };
  return (
    <li className="flex items-start gap-1.5">
      <input
        type="checkbox"
        aria-label={`${knob.name}: a value of its own`}
        title={own ? 'A value of its own: press to take the scene’s' : 'As in the scene: press for a value of its own'}
        className="mt-1.5 size-4 shrink-0"
        checked={own !== undefined}
        onChange={toggle}
      />
      <div className="min-w-0 flex-1">
        {own ? (
          <ParamField param={param} refs={[{ ...card, item: own.id, key: 'value' }]} />
        ) : (
          <div className={`${NAME_AND_VALUE} min-h-[26px] items-center text-ink-2`}>
            <span className="truncate" title={knob.name}>
              {knob.name}
            </span>
            <span className="flex min-w-0 items-center gap-1.5">
              {param.kind === 'color' && (
                <span
                  className="size-3.5 shrink-0 rounded-sm border border-line"
                  style={{ background: String(value) }}
                />
              )}
              <span className="truncate">{shownValue(param, value)}</span>
            </span>
          </div>
        )}
      </div>
    </li>
  );
};

/** The knobs of the scene that a nest plays, each of which it may set for itself. */
export const NestSettings = ({
  card,
  layer,
  item,
  inner,
}: {
  card: CardRef;
  layer: DrawingLayer;
  item: Item;
  inner: Id;
}) => {
  const editor = useEditor();
  const scenes = useSlice((s) => s.doc.scenes);
  const scene = scenes[inner];
  const inside = useSlice((s) =>
    scene ? (frameInside(editor.program, { layer: layer.id, card: item.id }, s.frame, scene) ?? 0) : 0,
  );
  const uses = useMemo(() => usesOf(scenes, inner), [scenes, inner]);
  if (!scene) return null;
  const knobs = Object.values(scene.layers).flatMap((of) =>
    of.kind === 'controller'
      ? of.panel.flatMap((id) => {
          const knob = of.knobs[id];
          return knob ? [{ knob, at: { scene: inner, layer: of.id, item: id, key: 'value' } }] : [];
        })
      : [],
  );
  const own = (item.children ?? []).flatMap((id) => layer.items[id] ?? []);
  const gone = own.filter(({ sets }) => !knobs.some(({ knob }) => knob.id === sets));
  return (
    <section aria-label={`Knobs of ${scene.name}`} className="mt-1 flex flex-col gap-1.5 border-t border-line pt-2">
      <div className="flex flex-wrap items-center justify-end gap-x-2 gap-y-1 text-sm text-ink-2">
        <span className="mr-auto">{uses === 1 ? 'Played here alone' : `Played by ${uses} layers`}</span>
        <span className="flex gap-2">
          <Button
            className="h-6 px-1.5 text-sm"
            title="Opens the scene where it stands here, with what is around it shown faintly"
            onClick={() => openNest(editor, layer.id)}
          >
            <ScanEye size={12} /> In place
          </Button>
          {uses > 1 && (
            <Button
              className="h-6 px-1.5 text-sm"
              title="A copy of the scene for this nest alone"
              onClick={() => editor.edit(ownCopy(card, inner, makeId))}
            >
              <Copy size={12} /> Own copy
            </Button>
          )}
        </span>
      </div>
      {knobs.length === 0 ? (
        <p className="text-sm text-ink-2">
          Knobs of a controller inside “{scene.name}” show here, and each nest can set them for itself.
        </p>
      ) : (
        <ul className="flex flex-col gap-1.5">
          {knobs.map(({ knob, at }) => (
            <KnobHere
              key={knob.id}
              card={card}
              knob={knob}
              at={at}
              frame={inside}
              own={own.find(({ sets }) => sets === knob.id)}
            />
          ))}
        </ul>
      )}
      {gone.map(({ id, name }) => (
        <p key={id} className="flex items-center justify-between gap-2 text-sm text-sun">
          <span className="truncate" title={`This scene has no knob “${name}” any more`}>
            Gone: {name}
          </span>
          <Button className="h-6 px-1.5 text-sm" onClick={() => editor.edit(removeItem({ ...card, item: id }))}>
            Remove
          </Button>
        </p>
      ))}
    </section>
  );
};
