import { setScene } from '@kite/core/edits/scenes';
import { setValue } from '@kite/core/edits/properties';
import { usesOfSwatches } from '@kite/core/edits/swatches';
import { wordsOf } from '@kite/core/properties/words';
import { needsOf } from '@kite/core/recipe/needs';
import { nestedIn } from '@kite/core/scene/whole';
import type { ReactNode } from 'react';
import { ColorField } from '../../ui/ColorField';
import { TextField } from '../inspector/fields/TextField';
import { useEditor, useSlice } from '../store/context';
import { AssetRow } from './AssetsDrawer';
import { SwatchRow } from './ColorsDrawer';
import { DrawerFrame } from './DrawerFrame';

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section aria-label={title} className="mb-4">
    <h3 className="mb-1.5 text-sm font-semibold text-ink-2">{title}</h3>
    <ul className="flex flex-col gap-1.5">{children}</ul>
  </section>
);

/** What is replaced late: the words of the open scene and of those in it, its colours and its pictures, each in one place. */
export const ReplaceDrawer = () => {
  const editor = useEditor();
  const { doc, sceneId, frame } = useSlice((s) => ({ doc: s.doc, sceneId: s.sceneId, frame: s.frame }));
  const scene = doc.scenes[sceneId];
  if (!scene) return null;
  const scenes = [scene, ...nestedIn(scene, doc.scenes).flatMap((id) => doc.scenes[id] ?? [])];
  const words = scenes.flatMap((own) => wordsOf(own, own === scene ? frame : own.poster));
  const uses = usesOfSwatches({ scenes: Object.fromEntries(scenes.map((own) => [own.id, own])) });
  const swatches = doc.swatches.filter(({ id }) => uses.has(id));
  const named = new Set(
    scenes.flatMap((own) => Object.values(own.layers).flatMap((layer) => [...needsOf(layer).assets])),
  );
  const pictures = Object.values(doc.assets).filter(({ id, kind }) => kind === 'picture' && named.has(id));
  return (
    <DrawerFrame title="Replace">
      {words.length + swatches.length + pictures.length === 0 && (
        <p className="text-ink-2">
          The words, pictures and swatches of this scene stand here once it has some, each to be replaced in one place.
        </p>
      )}
      {words.length > 0 && (
        <Part title="Words">
          {words.map(({ ref, param, layer, part, text }) => {
            const name = part === '' ? layer : `${layer}, ${part}`;
            return (
              <li key={`${ref.scene} ${ref.layer} ${ref.item} ${ref.key}`}>
                <button
                  type="button"
                  className="block max-w-full truncate text-sm text-ink-2 hover:text-ink"
                  title={ref.scene === sceneId ? 'Select its layer' : `In the scene ${doc.scenes[ref.scene]?.name}`}
                  onClick={() => ref.scene === sceneId && editor.select({ layers: [ref.layer] })}
                >
                  {name}
                </button>
                <TextField
                  label={`Words of ${name}`}
                  value={text}
                  param={param}
                  onStart={() => editor.begin()}
                  onChange={(value) => editor.edit({ ...setValue(ref, value, editor.writing), label: 'Replace words' })}
                  onEnd={() => editor.end()}
                />
              </li>
            );
          })}
        </Part>
      )}
      {pictures.length > 0 && (
        <Part title="Pictures">
          {pictures.map((asset) => (
            <AssetRow key={asset.id} asset={asset} uses={1} />
          ))}
        </Part>
      )}
      {(swatches.length > 0 || scene.background !== null) && (
        <Part title="Colours">
          {scene.background !== null && (
            <li className="flex flex-col gap-1 rounded-md border border-line p-1.5">
              <span className="font-medium">Background</span>
              <ColorField
                label="Background of the scene"
                value={scene.background}
                onStart={() => editor.begin()}
                onChange={(background) => editor.edit(setScene(scene.id, { background }))}
                onEnd={() => editor.end()}
              />
            </li>
          )}
          {swatches.map((swatch) => (
            <SwatchRow key={swatch.id} swatch={swatch} uses={uses.get(swatch.id) ?? 0} />
          ))}
        </Part>
      )}
    </DrawerFrame>
  );
};
