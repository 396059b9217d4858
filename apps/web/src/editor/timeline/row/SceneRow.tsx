import { ChevronDown, ChevronRight } from 'lucide-react';
import { memo } from 'react';
import type { Id, Layer } from '@kite/core/document/types';
import { useEditor, useSlice } from '../../store/context';
import { NAMES_WIDTH, ROW, rowButton } from '../scale';

/** The head of another scene, whose ribbons it opens. Frames count from each scene's own start. */
export const SceneRow = memo(({ scene, open }: { scene: Id; open: boolean }) => {
  const editor = useEditor();
  const { name, length } = useSlice((s) => ({
    name: s.doc.scenes[scene]?.name ?? '',
    length: s.doc.scenes[scene]?.length ?? 0,
  }));
  return (
    <div
      role="group"
      aria-label={`Scene ${name}`}
      className="flex border-b border-line bg-paper-2"
      style={{ height: ROW }}
    >
      <div style={{ width: NAMES_WIDTH }} className="flex items-center gap-1.5 border-r border-line pr-2 pl-1.5">
        <button
          type="button"
          aria-label={`${open ? 'Close' : 'Open'} the scene ${name}`}
          aria-expanded={open}
          className={`${rowButton} text-ink-2`}
          onPointerDown={(event) => event.stopPropagation()}
          onClick={() => editor.setOpened([scene], !open)}
        >
          {open ? <ChevronDown size={13} /> : <ChevronRight size={13} />}
        </button>
        <span className="min-w-0 flex-1 truncate font-medium" title={name}>
          {name}
        </span>
        <span className="text-sm text-ink-2">{length} f</span>
      </div>
    </div>
  );
});
SceneRow.displayName = 'SceneRow';

/** The name of a layer of another scene above its ribbons. */
export const ElsewhereRow = memo(({ layer }: { layer: Layer }) => (
  <div className="flex border-b border-line" style={{ height: ROW }}>
    <div style={{ width: NAMES_WIDTH }} className="flex items-center gap-2 border-r border-line pr-2 pl-7">
      <span className="h-3.5 w-1 shrink-0 rounded-full" style={{ background: `var(--tag-${layer.tag})` }} />
      <span className="truncate text-ink-2" title={layer.name}>
        {layer.name}
      </span>
    </div>
  </div>
));
ElsewhereRow.displayName = 'ElsewhereRow';
