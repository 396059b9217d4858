/** What handles and menus do to corners: keyed together, shared by layers, let go. */
import type { Id, Layer, Point, PropertyRef } from '@kite/core/document/types';
import {
  canJoin,
  joinedTo,
  type JoinedIn,
  jointOf,
  leadsOfPoints,
  turnJoint,
  unjoinPoints,
} from '@kite/core/edits/joints';
import { applyThrough } from '@kite/core/geometry/through';
import { pin, PIN_CORNERS, type PinCorner } from '@kite/core/recipe/covers/pin';
import { isShown } from '@kite/core/scene/groups';
import { toast } from '../../ui/toast';
import type { MenuEntry } from '../../ui/Menu';
import type { Editor } from '../store/editor';
import { keyAll } from './keying';

/** A corner of a pin and where it stands in the scene. */
export interface CornerShown {
  readonly ref: PropertyRef;
  readonly at: Point;
}

const cornersOfCard = (scene: Id, layer: Id, item: Id): PropertyRef[] =>
  PIN_CORNERS.map((key) => ({ scene, layer, item, key }));

const cornersOfLayer = (scene: Id, layer: Layer | undefined): PropertyRef[] =>
  layer?.kind === 'drawing'
    ? Object.values(layer.items).flatMap(({ id, kind, on }) =>
        kind === pin.kind && on ? cornersOfCard(scene, layer.id, id) : [],
      )
    : [];

/** The corners of all that can be seen and is not locked, but of one card. */
export const cornersBeside = (editor: Editor, layer: Id, item: Id): readonly CornerShown[] => {
  const { scene, program } = editor;
  const { frame } = editor.state;
  return scene.order.flatMap((id) => {
    const owner = scene.layers[id];
    if (!owner || owner.locked || !isShown(scene, owner, frame)) return [];
    return cornersOfLayer(scene.id, owner).flatMap((ref): CornerShown[] => {
      const card = (ref.layer !== layer || ref.item !== item) && program.cardAt(id, ref.item as Id, frame);
      return card ? [{ ref, at: applyThrough(card.through, card.values[ref.key] as Point) }] : [];
    });
  });
};

/** Among corners the one nearest to a place within so many pixels of the scene, with which another can be joined. */
export const cornerToJoin = (
  editor: Editor,
  ref: PropertyRef,
  corners: readonly CornerShown[],
  [x, y]: Point,
  within: number,
): CornerShown | null => {
  const away = ({ at }: CornerShown): number => Math.hypot(at[0] - x, at[1] - y);
  const [nearest] = corners
    .filter((corner) => away(corner) <= within && canJoin(editor.scene, ref, corner.ref))
    .sort((a, b) => away(a) - away(b));
  return nearest ?? null;
};

/** `Night · Top right`. */
export const nameOfCorner = (editor: Editor, { layer, key }: PropertyRef): string =>
  `${editor.scene.layers[layer]?.name ?? 'a layer that is gone'} · ${pin.params[key as PinCorner].label}`;

const IN: Readonly<Record<JoinedIn, string>> = { both: 'in x and y', x: 'in x alone', y: 'in y alone' };

/** What a corner is joined to, in words; null for one that stands by itself. */
export const jointInWords = (editor: Editor, ref: PropertyRef): string | null => {
  const { scene } = editor;
  const joint = jointOf(scene, ref);
  const others = joinedTo(scene, ref);
  const says = [
    joint && `follows ${nameOfCorner(editor, joint.to)} ${IN[joint.along]}`,
    others.length > 0 && `is followed by ${others.map((other) => nameOfCorner(editor, other)).join(', ')}`,
  ].filter(Boolean);
  return says.length > 0 ? says.join(', ') : null;
};

const letGo = (editor: Editor, refs: readonly PropertyRef[]): void =>
  void editor.edit(unjoinPoints(editor.ownProgram, refs));

/** Keyframes at the playhead on every corner of the selected layers. */
export const keyCorners = (editor: Editor): void => {
  const { scene, state } = editor;
  const refs = state.selection.layers.flatMap((id) =>
    scene.layers[id]?.locked ? [] : cornersOfLayer(scene.id, scene.layers[id]),
  );
  if (refs.length === 0) {
    toast.info('None of the selected layers has a corner pin whose corners could be keyed.');
    return;
  }
  keyAll(editor, leadsOfPoints(scene, refs));
};

/** What can be done to a corner. */
export const cornerMenu = (editor: Editor, ref: PropertyRef): (MenuEntry | null)[] => {
  const { scene } = editor;
  const joint = jointOf(scene, ref);
  const others = joinedTo(scene, ref);
  const along = (way: JoinedIn): MenuEntry => ({
    label: `Follow ${IN[way]}`,
    disabled: joint?.along === way,
    onSelect: () => editor.edit(turnJoint(ref, way)),
  });
  return [
    ...(joint
      ? [
          along('both'),
          along('x'),
          along('y'),
          { label: `Let go of ${nameOfCorner(editor, joint.to)}`, onSelect: () => letGo(editor, [ref]) },
        ]
      : []),
    ...(others.length > 0
      ? [
          {
            label: others.length === 1 ? 'Let go what follows it' : `Let go the ${others.length} that follow it`,
            onSelect: () => letGo(editor, others),
          },
        ]
      : []),
    ...(joint || others.length > 0 ? [null] : []),
    { label: 'Key all corners of the selected layers', onSelect: () => keyCorners(editor) },
  ];
};

/** What can be done to all corners of a pin. */
export const pinMenu = (editor: Editor, layer: Id, item: Id): MenuEntry[] => {
  const refs = cornersOfCard(editor.scene.id, layer, item);
  const joined = refs.filter((ref) => jointOf(editor.scene, ref));
  return [
    { label: 'Key all its corners', onSelect: () => keyAll(editor, leadsOfPoints(editor.scene, refs)) },
    {
      label: 'Let its corners go',
      disabled: joined.length === 0,
      onSelect: () => letGo(editor, joined),
    },
  ];
};
