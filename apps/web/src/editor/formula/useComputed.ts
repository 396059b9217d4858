/** Properties as they are shown: their formulas at work. */
import type { Param } from '@kite/core/document/params';
import { wholeScene } from '@kite/core/scene/whole';
import type { PropertyRef } from '@kite/core/document/types';
import { partOf, propertyAt } from '@kite/core/properties/find';
import type { Computed } from '@kite/core/formula/computed';
import { formulaKey } from '@kite/core/document/formulas';
import type { Wiring } from '@kite/core/formula/wiring';
import { type Sampler, samplerOf } from '@kite/core/motion/sampler';
import { compileScene } from '@kite/core/scene/compile';
import { useEditor, useSlice } from '../store/context';
import type { Editor } from '../store/editor';
import type { EditorState } from '../store/state';

/** The wiring of the scene that a property is in. */
const wiringAt = (editor: Editor, state: EditorState, scene: string): Wiring | null => {
  const own = state.doc.scenes[scene];
  return own ? compileScene(wholeScene(own, state.doc), editor.library).wiring : null;
};

/** Whether a formula works on a property or on a part of it. Asked for every selected layer whenever anything changes. */
export const isComputed = (state: EditorState, ref: PropertyRef): boolean => {
  const layer = state.doc.scenes[ref.scene]?.layers[ref.layer];
  const formulas = (ref.item === undefined ? layer : partOf(layer, ref.item))?.formulas;
  if (!formulas) return false;
  const on = (part: 0 | 1 | undefined) =>
    formulas[formulaKey({ key: ref.key, ...(part !== undefined && { part }) })]?.on;
  return (on(undefined) || (ref.part !== 1 && on(0)) || (ref.part !== 0 && on(1))) ?? false;
};

/** A property as it is shown: by its formula where it has one, else by its keyframes. */
export const shownSampler = (editor: Editor, state: EditorState, ref: PropertyRef, param: Param): Sampler => {
  const computed = isComputed(state, ref) ? wiringAt(editor, state, ref.scene)?.sampler(ref) : null;
  return computed ?? samplerOf(param, propertyAt(state.doc, ref));
};

export const useShown = (refs: readonly PropertyRef[], param: Param): readonly Sampler[] => {
  const editor = useEditor();
  return useSlice((s) => refs.map((ref) => shownSampler(editor, s, ref, param)));
};

/** The formula of a property, or of one part of it; null where it has none. */
export const useComputed = (ref: PropertyRef): Computed | null => {
  const editor = useEditor();
  return useSlice((s) => (isComputed(s, ref) ? (wiringAt(editor, s, ref.scene)?.computed(ref) ?? null) : null));
};
