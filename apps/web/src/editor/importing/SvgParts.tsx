import { insideOf } from '@kite/core/interchange/svg/layers';
import type { SvgGroup, SvgNode } from '@kite/core/interchange/svg/nodes';
import type { Assets, DrawingLayer } from '@kite/core/document/types';
import { FolderClosed, FolderOpen } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { IconButton } from '../../ui/Button';
import { bareFlow, CardPicture } from '../inspector/recipe/CardPicture';
import { useEditor } from '../store/context';

/** How a drawing is chosen from: which of its groups are taken apart, and what is left out. */
export interface Choice {
  readonly open: ReadonlySet<SvgNode>;
  readonly out: ReadonlySet<SvgNode>;
}
export const ALL: Choice = { open: new Set(), out: new Set() };

/** What would be one layer each: groups that are taken apart by what is in them. */
export const unitsOf = (nodes: readonly SvgNode[], open: Choice['open']): readonly SvgNode[] =>
  nodes.flatMap((node) => (node.kind === 'group' && open.has(node) ? unitsOf(insideOf(node), open) : [node]));

const withOut = ({ open, out }: Choice, nodes: readonly SvgNode[], leave: boolean): Choice => {
  const next = new Set(out);
  for (const node of nodes) {
    if (leave) next.add(node);
    else next.delete(node);
  }
  return { open, out: next };
};

/** A group taken apart, or kept as one again: what was left out of it stays out, as far as that can be said. */
const turned = (choice: Choice, group: SvgGroup): Choice => {
  const open = new Set(choice.open);
  const before = unitsOf([group], open);
  const left = before.every((unit) => choice.out.has(unit));
  if (!open.delete(group)) open.add(group);
  return withOut(withOut({ ...choice, open }, before, false), left ? unitsOf([group], open) : [], true);
};

/** A checkbox for several things, some of which may be chosen. */
const SomeBox = ({
  label,
  chosen,
  of,
  onChange,
}: {
  label: string;
  chosen: number;
  of: number;
  onChange: () => void;
}) => {
  const box = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (box.current) box.current.indeterminate = chosen > 0 && chosen < of;
  }, [chosen, of]);
  return <input ref={box} type="checkbox" aria-label={label} checked={chosen > 0} onChange={onChange} />;
};

/** So many parts of a list have pictures. */
const MOST_PICTURES = 200;

interface PartsProps {
  nodes: readonly SvgNode[];
  choice: Choice;
  onChange: (choice: Choice) => void;
  /** A part as the layer that it would be. */
  layerOf: (node: SvgNode) => DrawingLayer | undefined;
  /** What these layers show. */
  pictures: Assets;
}

const Picture = ({ layer, pictures }: { layer: DrawingLayer | undefined; pictures: Assets }) => {
  const editor = useEditor();
  return (
    <span className="grid h-[60px] w-full place-items-center rounded-sm bg-surround">
      {layer && (
        <CardPicture
          flow={() => bareFlow(layer.recipe, layer.items, editor.library.fonts, pictures)}
          from={[layer, editor.library.fonts, pictures]}
          width={84}
          height={56}
        />
      )}
    </span>
  );
};

/** The parts of a drawing by its tree, each to be taken or left, and each group to be taken apart. */
export const SvgParts = ({ nodes, choice, onChange, layerOf, pictures }: PartsProps) => (
  <ul className="grid grid-cols-5 gap-2">
    {nodes.map((node, i) => {
      const { name } = node;
      const units = unitsOf([node], choice.open);
      const chosen = units.filter((unit) => !choice.out.has(unit)).length;
      const toggle = () => onChange(withOut(choice, units, chosen > 0));
      const inside = node.kind === 'group' ? insideOf(node) : [];
      const isGroup = node.kind === 'group' && inside.length > 1;
      if (isGroup && choice.open.has(node)) {
        return (
          <li key={i} className="col-span-5 rounded-md border border-line bg-paper p-1.5">
            <div className="flex items-center gap-1.5 pb-1.5 text-sm">
              <SomeBox label={name} chosen={chosen} of={units.length} onChange={toggle} />
              <span className="truncate font-medium" title={name}>
                {name}
              </span>
              <span className="text-ink-2">
                {chosen} of {units.length}
              </span>
              <IconButton
                className="ml-auto"
                size="small"
                label={`Keep ${name} as one`}
                onClick={() => onChange(turned(choice, node))}
              >
                <FolderOpen size={13} />
              </IconButton>
            </div>
            <SvgParts nodes={inside} choice={choice} onChange={onChange} layerOf={layerOf} pictures={pictures} />
          </li>
        );
      }
      return (
        <li key={i} className="relative">
          <label
            className={`flex cursor-default flex-col items-center gap-1 rounded-md border bg-paper p-1.5 ${chosen > 0 ? 'border-sky' : 'border-line opacity-60'}`}
          >
            <Picture layer={i < MOST_PICTURES ? layerOf(node) : undefined} pictures={pictures} />
            <span className="flex w-full items-center gap-1 text-sm">
              <input type="checkbox" checked={chosen > 0} onChange={toggle} />
              <span className="truncate" title={name}>
                {name}
              </span>
            </span>
          </label>
          {isGroup && (
            <span className="absolute top-2 right-2 rounded-sm bg-paper">
              <IconButton
                size="small"
                label={`Take ${name} apart: ${inside.length} parts`}
                onClick={() => onChange(turned(choice, node))}
              >
                <FolderClosed size={13} />
              </IconButton>
            </span>
          )}
        </li>
      );
    })}
  </ul>
);
