import { type Param, PLACE } from '@kite/core/document/params';
import { BLENDS, type BlendMode, type Id, type Layer, type PropertyRef, TAGS } from '@kite/core/document/types';
import { together } from '@kite/core/document/patches';
import { aimCamera } from '@kite/core/edits/cameras';
import { setLayers } from '@kite/core/edits/layers';
import { Move } from 'lucide-react';
import { memo, useMemo } from 'react';
import { Select } from '../../../ui/Select';
import { layerBox } from '@kite/core/scene/bounds';
import { withMembers } from '@kite/core/scene/groups';
import { useEditor, useSlice } from '../../store/context';
import { sceneOf } from '../../store/state';
import { hangFrom, selectTag } from '../../commands/arrange';
import { AlignRow } from '../AlignRow';
import { Card } from './Card';
import { useShown } from '../../formula/useComputed';
import { applies } from '../fields/applies';
import { ParamField } from '../fields/ParamField';
import { PivotGrid } from '../PivotGrid';
import { NAME_AND_FIELD } from '../row';

/** Layers that may be the parent of these: not themselves, nor what hangs from them. */
const possibleParents = (layers: { readonly [id: Id]: Layer }, order: readonly Id[], chosen: readonly Id[]): Layer[] =>
  order.flatMap((id) => {
    for (let at: Id | null = id; at !== null; at = layers[at]?.parent ?? null) if (chosen.includes(at)) return [];
    const layer = layers[id];
    return layer ? [layer] : [];
  });

interface ParentSelectProps {
  ids: readonly Id[];
  /** undefined where the layers have different ones. */
  value: Id | null | undefined;
  onChange: (parent: Id | null) => void;
}

/** Made anew only when layers come, go, or change name or parent: there may be hundreds in the list. */
const ParentSelect = memo(
  ({ ids, value, onChange }: ParentSelectProps) => {
    const lines = useSlice((s) => {
      const { order, layers } = sceneOf(s);
      return order.map((id) => `${layers[id]?.parent}/${layers[id]?.name}`).join();
    });
    const editor = useEditor();
    const options = useMemo(
      () => possibleParents(editor.scene.layers, editor.scene.order, ids).map((l) => ({ value: l.id, label: l.name })),
      // `lines` stands for what the list is made of.
      // eslint-disable-next-line react-hooks/exhaustive-deps
      [editor, ids, lines],
    );
    return (
      <Select
        value={value === undefined ? 'mixed' : (value ?? '')}
        options={[
          ...(value === undefined ? [{ value: 'mixed', label: 'mixed' }] : []),
          { value: '', label: 'None' },
          ...options,
        ]}
        onChange={(next) => next !== 'mixed' && onChange(next === '' ? null : next)}
      />
    );
  },
  (a, b) => a.value === b.value && a.ids.join() === b.ids.join(),
);
ParentSelect.displayName = 'ParentSelect';

const refsOf = (scene: Id, ids: readonly Id[], key: string): readonly PropertyRef[] =>
  ids.map((layer) => ({ scene, layer, key }));

/** What only controllers have. */
const OF_CAMERAS: readonly string[] = ['camera', 'angle', 'aims', 'target', 'targetZ'];
/** What one that looks at a point is not turned by. */
const TURNS: readonly string[] = ['turnX', 'turnY'];

/** Whether cameras look at a point of their own: what they show stays when that is switched. */
const AimField = ({ ids, aims }: { ids: readonly Id[]; aims: boolean }) => {
  const editor = useEditor();
  const onChange = () => {
    const edits = ids.map((id) => aimCamera(editor.ownProgram, id, !aims, editor.writing));
    editor.edit(together(aims ? 'Look around a place' : 'Look at a point', edits));
  };
  return (
    <label className={NAME_AND_FIELD}>
      <span className="pl-5 text-ink-2">Aims</span>
      <span className="flex items-center gap-2 text-sm text-ink-2">
        <input type="checkbox" aria-label={PLACE.aims.label} checked={aims} onChange={onChange} />
        at a point of its own
      </span>
    </label>
  );
};

/** The fields of a place; those of depth once one of the layers has it. */
const PlaceFields = ({ layers }: { layers: readonly Layer[] }) => {
  const ids = layers.map(({ id }) => id);
  const { sceneId, frame } = useSlice((s) => ({ sceneId: s.sceneId, frame: s.frame }));
  const depths = useShown(refsOf(sceneId, ids, 'depth'), PLACE.depth);
  const backs = useShown(refsOf(sceneId, ids, 'back'), PLACE.back);
  const cameras = useShown(refsOf(sceneId, ids, 'camera'), PLACE.camera);
  const aims = useShown(refsOf(sceneId, ids, 'aims'), PLACE.aims);
  const values = ids.map((_, i) => ({
    depth: depths[i]?.at(frame),
    back: backs[i]?.at(frame),
    camera: cameras[i]?.at(frame),
    aims: aims[i]?.at(frame),
  }));
  return Object.entries<Param>(PLACE)
    .filter(([key]) => !OF_CAMERAS.includes(key) || layers.every(({ kind }) => kind === 'controller'))
    .filter(([, param]) => values.some((v) => applies(param, v, PLACE)))
    .filter(([key]) => !TURNS.includes(key) || !values.every((v) => v.camera === true && v.aims === true))
    .map(([key, param]) =>
      key === 'aims' ? (
        <AimField key={key} ids={ids} aims={values.every((v) => v.aims === true)} />
      ) : (
        <ParamField key={key} param={param} refs={refsOf(sceneId, ids, key)} />
      ),
    );
};

export const PlaceCard = ({ layers }: { layers: readonly Layer[] }) => {
  const editor = useEditor();
  const sceneId = useSlice((s) => s.sceneId);
  const ids = layers.map((l) => l.id);
  const set = (fields: Parameters<typeof setLayers>[2]) => editor.edit(setLayers(sceneId, ids, fields));
  const same = <K extends keyof Layer>(key: K) =>
    layers.every((l) => l[key] === layers[0]?.[key]) ? layers[0]?.[key] : undefined;
  const tag = same('tag');
  const only = layers.length === 1 ? layers[0] : undefined;
  return (
    <Card
      title="Place"
      icon={<Move size={15} />}
      aside={layers.length === 1 ? layers[0]?.name : `${layers.length} layers`}
    >
      <PlaceFields layers={layers} />
      {only && (only.kind === 'drawing' || only.group) && (
        <PivotGrid layer={only.id} boxOf={() => layerBox(editor.program, only.id, editor.state.frame)} />
      )}
      <AlignRow count={layers.length} />
      <label className={NAME_AND_FIELD}>
        <span className="pl-5 text-ink-2">Parent</span>
        <ParentSelect ids={ids} value={same('parent')} onChange={(parent) => hangFrom(editor, ids, parent)} />
      </label>
      <label className={NAME_AND_FIELD}>
        <span className="pl-5 text-ink-2">Blend</span>
        <Select
          value={same('blend') ?? 'normal'}
          options={BLENDS}
          onChange={(value) => set({ blend: value as BlendMode })}
        />
      </label>
      <div className={NAME_AND_FIELD}>
        <span className="pl-5 text-ink-2">Tag</span>
        <span role="radiogroup" aria-label="Tag" className="flex gap-1">
          {TAGS.map((t) => (
            <button
              key={t}
              type="button"
              role="radio"
              aria-checked={tag === t}
              aria-label={t}
              title={`${t}; a double click selects all of it`}
              onClick={() => editor.edit(setLayers(sceneId, withMembers(editor.scene, ids), { tag: t }))}
              onDoubleClick={() => selectTag(editor, t)}
              className={`size-4 rounded-full ${tag === t ? 'ring-2 ring-ink ring-offset-1 ring-offset-paper' : ''}`}
              style={{ background: `var(--tag-${t})` }}
            />
          ))}
        </span>
      </div>
    </Card>
  );
};
