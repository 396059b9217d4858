import type { FontAsset, FontChoice } from '@kite/core/document/types';
import { SHIPPED } from '@kite/core/type/shipped';
import { Italic, Plus, TriangleAlert } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { IconButton } from '../../../ui/Button';
import { Select } from '../../../ui/Select';
import { assetUrl, fontUrls } from '../../../preview/materials';
import { FileInput } from '../../../ui/FileInput';
import { importFiles } from '../../importing/importFiles';
import { useEditor, useSlice } from '../../store/context';
import { Panel } from '../../../ui/Panel';

interface Family {
  readonly name: string;
  readonly weights: readonly number[];
  readonly italics: boolean;
  /** A file to show its name in. */
  readonly url: string;
}

const WEIGHTS: Readonly<Record<number, string>> = {
  100: 'Thin',
  200: 'Extra light',
  300: 'Light',
  400: 'Regular',
  500: 'Medium',
  600: 'Semibold',
  700: 'Bold',
  800: 'Extra bold',
  900: 'Black',
};

const OWN: readonly Family[] = SHIPPED.map((f) => ({
  name: f.name,
  weights: f.weights,
  italics: f.italics === 'yes',
  url: fontUrls({
    from: 'application',
    family: f.id,
    weight: f.weights.includes(400) ? 400 : (f.weights[0] ?? 400),
    italic: false,
  })[0] as string,
}));

/** The user's fonts by family, before the application's. */
const familiesOf = (fonts: readonly FontAsset[]): Family[] => {
  const names = [...new Set(fonts.map((f) => f.family))];
  const theirs = names.map((name): Family => {
    const files = fonts.filter((f) => f.family === name);
    const weights = files.flatMap((f) =>
      f.weights
        ? Object.keys(WEIGHTS)
            .map(Number)
            .filter((w) => w >= f.weights![0] && w <= f.weights![1])
        : [f.weight],
    );
    return {
      name,
      weights: [...new Set(weights)].sort((a, b) => a - b),
      italics: files.some((f) => f.italic),
      url: assetUrl((files[0] as FontAsset).sha),
    };
  });
  return [...theirs, ...OWN.filter((f) => !names.includes(f.name))];
};

const shownIn = new Set<string>();

/** A family's name in its own letters. */
const Sample = ({ family }: { family: Family }) => {
  const face = `kite ${family.name}`;
  const [, setCame] = useState(0);
  useEffect(() => {
    if (shownIn.has(face)) return;
    const font = new FontFace(face, `url(${family.url})`);
    font.load().then(
      () => {
        document.fonts.add(font);
        shownIn.add(face);
        setCame((n) => n + 1);
      },
      () => undefined,
    );
  }, [face, family.url]);
  return (
    <span className="truncate text-lg leading-6" style={{ fontFamily: `"${face}", sans-serif` }}>
      {family.name}
    </span>
  );
};

interface FontFieldProps {
  label: string;
  value: FontChoice | null;
  onChange: (value: FontChoice) => void;
}

export const FontField = ({ label, value, onChange }: FontFieldProps) => {
  const editor = useEditor();
  const assets = useSlice((s) => s.doc.assets);
  const [open, setOpen] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const families = familiesOf(Object.values(assets).filter((a): a is FontAsset => a.kind === 'font'));
  const family = families.find((f) => f.name === value?.family);
  const missing = value !== null && !family;
  const weights = family?.weights ?? (value ? [value.weight] : []);
  const choose = (next: Family) => {
    const weight = value?.weight ?? 400;
    const nearest = next.weights.reduce((a, b) => (Math.abs(b - weight) < Math.abs(a - weight) ? b : a));
    onChange({ family: next.name, weight: nearest, italic: next.italics && (value?.italic ?? false) });
    setOpen(false);
  };
  return (
    <div className="flex min-w-0 flex-col gap-1">
      <Panel
        label={label}
        open={open}
        onOpenChange={setOpen}
        className="max-h-[440px] w-60 overflow-hidden"
        opener={
          <button
            type="button"
            aria-label={label}
            title={missing ? `${value.family} is not here; ${OWN[0]?.name} stands in for it` : undefined}
            className={`flex h-[26px] w-full min-w-0 items-center gap-1.5 rounded-md bg-paper-2 px-2 text-left ${missing ? 'text-sun' : ''}`}
          >
            {missing && <TriangleAlert size={13} className="shrink-0" />}
            <span className="truncate">{value?.family ?? 'mixed'}</span>
            {missing && <span className="shrink-0 text-sm">missing</span>}
          </button>
        }
      >
        <div role="listbox" aria-label="Fonts" className="min-h-0 flex-1 overflow-y-auto p-1">
          {families.map((f) => (
            <button
              key={f.name}
              type="button"
              role="option"
              aria-selected={f.name === value?.family}
              onClick={() => choose(f)}
              className={`flex h-8 w-full items-center rounded-[5px] px-2 text-left hover:bg-sky-2 ${f.name === value?.family ? 'bg-sky-2' : ''}`}
            >
              <Sample family={f} />
            </button>
          ))}
        </div>
        <button
          type="button"
          className="flex h-9 items-center gap-1.5 border-t border-line px-3 text-ink-2 hover:bg-paper-2 hover:text-ink"
          onClick={() => file.current?.click()}
        >
          <Plus size={14} /> Add a font from a file
        </button>
      </Panel>
      <FileInput
        input={file}
        multiple
        testId="font-file"
        accept=".ttf,.otf,.woff,.woff2"
        onChoose={(files) => void importFiles(editor, files)}
      />
      <div className="flex gap-1">
        <Select
          aria-label={`${label} weight`}
          className="flex-1"
          value={String(value?.weight ?? '')}
          options={(value && !weights.includes(value.weight) ? [value.weight, ...weights] : weights).map((w) => ({
            value: String(w),
            label: WEIGHTS[w] ? `${WEIGHTS[w]} ${w}` : String(w),
          }))}
          onChange={(weight) => value && onChange({ ...value, weight: Number(weight) })}
        />
        <IconButton
          label="Italic"
          pressed={value?.italic ?? false}
          disabled={!value || (!family?.italics && !value.italic)}
          onClick={() => value && onChange({ ...value, italic: !value.italic })}
        >
          <Italic size={14} />
        </IconButton>
      </div>
    </div>
  );
};
