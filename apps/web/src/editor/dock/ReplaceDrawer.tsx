import type { Id, Project, Scene } from '@kite/core/document/types';
import { setValue } from '@kite/core/edits/properties';
import { setScene } from '@kite/core/edits/scenes';
import { usesOfSwatches } from '@kite/core/edits/swatches';
import { splitWordsOf, type Words, wordsOf } from '@kite/core/properties/words';
import { usesOfAssets } from '@kite/core/recipe/needs';
import { nestedIn } from '@kite/core/scene/whole';
import { Rows3 } from 'lucide-react';
import { type ReactNode, useMemo } from 'react';
import { Link } from 'react-router';
import { buttonLook } from '../../ui/Button';
import { ColorField } from '../../ui/ColorField';
import { TextField } from '../inspector/fields/TextField';
import { WordField } from '../inspector/fields/WordField';
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

interface WhoseProps {
  name: string;
  scene: Id;
  layers: readonly Id[];
  /** The name of their scene where that is not the open one. */
  within: string | null;
}

/** Whose words they are: a press goes there. */
const Whose = ({ name, scene, layers, within }: WhoseProps) => {
  const editor = useEditor();
  return (
    <button
      type="button"
      className="block max-w-full truncate text-sm text-ink-2 hover:text-ink"
      title={within === null ? 'Select its layer' : `In the scene ${within}: open it`}
      onClick={() => {
        editor.showScene(scene);
        editor.select({ layers });
      }}
    >
      {name}
    </button>
  );
};

const WordsRow = ({ words: { ref, param, layer, part, text }, within }: { words: Words; within: string | null }) => {
  const editor = useEditor();
  const name = part === '' ? layer : `${layer}, ${part}`;
  return (
    <li>
      <Whose name={name} scene={ref.scene} layers={[ref.layer]} within={within} />
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
};

/** Words as they are at the playhead where that rests: keyed ones show what is said there. */
const WordsPart = ({ scenes }: { scenes: readonly Scene[] }) => {
  const { sceneId, frame } = useSlice((s) => ({ sceneId: s.sceneId, frame: s.playing ? null : s.frame }));
  const all = scenes.flatMap((own) => wordsOf(own, own.id === sceneId && frame !== null ? frame : own.poster));
  const split = scenes.flatMap(splitWordsOf);
  if (all.length + split.length === 0) return null;
  const withinOf = (id: Id) => (id === sceneId ? null : (scenes.find((own) => own.id === id)?.name ?? null));
  return (
    <Part title="Words">
      {all.map((words) => {
        const { scene, layer, item, key } = words.ref;
        const id = [scene, layer, item, key].join(' ');
        return <WordsRow key={id} words={words} within={withinOf(scene)} />;
      })}
      {split.map(({ ref: { scene, layer: set }, layer, word }) => (
        <li key={`${scene} ${set}`}>
          <Whose name={layer} scene={scene} layers={word.parts} within={withinOf(scene)} />
          <WordField label={`Words of ${layer}`} scene={scene} set={set} word={word} />
        </li>
      ))}
    </Part>
  );
};

/** A scene with those in it, and what of the project they show. */
const shownBy = (scene: Scene, { scenes: all, swatches, assets }: Pick<Project, 'scenes' | 'swatches' | 'assets'>) => {
  const scenes = [scene, ...nestedIn(scene, all).flatMap((id) => all[id] ?? [])];
  const dyed = usesOfSwatches({ scenes: Object.fromEntries(scenes.map((own) => [own.id, own])) });
  const shown = usesOfAssets(scenes);
  return {
    scenes,
    swatches: swatches.flatMap((swatch) => {
      const uses = dyed.get(swatch.id);
      return uses === undefined ? [] : [{ swatch, uses }];
    }),
    pictures: Object.values(assets).flatMap((asset) => {
      const uses = asset.kind === 'picture' ? shown.get(asset.id) : undefined;
      return uses === undefined ? [] : [{ asset, uses }];
    }),
  };
};

/** What is replaced late: the words of the open scene and of those in it, its colours and its pictures, each in one place. */
export const ReplaceDrawer = () => {
  const editor = useEditor();
  const { project, all, swatches, assets, sceneId } = useSlice((s) => ({
    project: s.doc.id,
    all: s.doc.scenes,
    swatches: s.doc.swatches,
    assets: s.doc.assets,
    sceneId: s.sceneId,
  }));
  const scene = all[sceneId];
  const shown = useMemo(
    () => scene && shownBy(scene, { scenes: all, swatches, assets }),
    [scene, all, swatches, assets],
  );
  if (!scene || !shown) return null;
  const none = shown.pictures.length + shown.swatches.length === 0;
  return (
    <DrawerFrame title="Replace">
      <WordsPart scenes={shown.scenes} />
      {shown.pictures.length > 0 && (
        <Part title="Pictures">
          {shown.pictures.map(({ asset, uses }) => (
            <AssetRow key={asset.id} asset={asset} uses={uses} press="swap" />
          ))}
        </Part>
      )}
      {(shown.swatches.length > 0 || scene.background !== null) && (
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
          {shown.swatches.map(({ swatch, uses }) => (
            <SwatchRow key={swatch.id} swatch={swatch} uses={uses} />
          ))}
        </Part>
      )}
      {none && (
        <p className="text-ink-2">
          Words, pictures and swatches of this scene stand here, each to be replaced in one place. Colours become
          swatches in the drawer of colours.
        </p>
      )}
      <Link to={`/projects/${project}/versions`} className={buttonLook('outline', 'mt-2')}>
        <Rows3 size={14} /> Several versions, in a table
      </Link>
    </DrawerFrame>
  );
};
