import { ASSETS } from '@kite/api/library';
import { together } from '@kite/core/document/patches';
import { isKeyed } from '@kite/core/document/types';
import type { PictureAsset, Project, Property } from '@kite/core/document/types';
import { brush as brushKind } from '@kite/core/recipe/sources/brush';
import { ImagePlus } from 'lucide-react';
import { useRef } from 'react';
import { ask } from '../../../api/client';
import { assetUrl } from '../../../preview/materials';
import { Button } from '../../../ui/Button';
import { FileInput } from '../../../ui/FileInput';
import { sayUnchanged } from '../../../ui/says';
import { nameOfFile, takenIn } from '../../importing/takenIn';
import { tipOfFile } from '../../importing/tipOfFile';
import { useEditor, useSlice } from '../../store/context';
import type { Editor } from '../../store/editor';
import { TipChoice } from './TipMenu';

/** The pictures that strokes of a project are drawn with, and the one in hand. */
const tipsOf = ({ scenes, assets }: Project, inHand: string): readonly PictureAsset[] => {
  const layers = Object.values(scenes).flatMap((scene) => Object.values(scene.layers));
  const items = layers.flatMap((layer) => (layer.kind === 'drawing' ? Object.values(layer.items) : []));
  const named = items.flatMap(({ kind, params }) => {
    const stamp: Property | undefined = kind === brushKind.kind ? params.stamp : undefined;
    if (!stamp) return [];
    return isKeyed(stamp) ? stamp.keys.map((key) => key.value) : 'value' in stamp ? [stamp.value] : [];
  });
  return [...new Set([...named, inHand])].flatMap((id) => {
    const asset = assets[id as string];
    return asset?.kind === 'picture' ? [asset] : [];
  });
};

/** A tip out of a picture's file is a picture of the project like any other, in one step. */
const addTip = async (editor: Editor, file: File): Promise<void> => {
  try {
    const tip = await tipOfFile(file);
    const sent = await ask(ASSETS.add, { name: `${nameOfFile(file)} tip` }, tip);
    const { assets, edits } = takenIn(editor.state.doc.assets, [sent]);
    if (edits.length > 0) editor.edit(together('Add a tip', edits));
    editor.set({ brush: { ...editor.state.brush, tip: 'own', stamp: assets[0]?.id ?? sent.id } });
  } catch (error) {
    sayUnchanged(error);
  }
};

/** Pictures as tips: those that there are, and another out of a file. */
export const OwnTips = () => {
  const editor = useEditor();
  const file = useRef<HTMLInputElement>(null);
  const { brush, doc } = useSlice((s) => ({ brush: s.brush, doc: s.doc }));
  return (
    <>
      {tipsOf(doc, brush.stamp).map(({ id, name, sha }) => (
        <TipChoice
          key={id}
          label={name}
          on={brush.tip === 'own' && brush.stamp === id}
          onPick={() => editor.set({ brush: { ...editor.state.brush, tip: 'own', stamp: id } })}
        >
          <img src={assetUrl(sha)} alt="" className="max-h-7 max-w-20" />
        </TipChoice>
      ))}
      <Button
        look="plain"
        className="!justify-start"
        icon={<ImagePlus size={14} />}
        onClick={() => file.current?.click()}
      >
        From a picture …
      </Button>
      <FileInput
        input={file}
        testId="tip-file"
        accept=".png,.jpg,.jpeg,.webp,.gif"
        onChoose={([chosen]) => chosen && void addTip(editor, chosen)}
      />
    </>
  );
};
