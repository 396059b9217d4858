import { Button } from '../../ui/Button';
import { type Mode, SELECTING, toolOf, withTool } from '../store/workspace';
import {
  type DragEvent,
  type MouseEvent,
  type PointerEvent,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import type { Id, Point } from '@kite/core/document/types';
import { PressMenu } from '../../ui/Menu';
import { useSize } from '../../ui/useSize';
import { followPointer } from '../../ui/drag';
import { writeText } from '../commands/layers';
import { openNest } from '../commands/nesting';
import {
  CompareLine,
  FullScreenBar,
  importFiles,
  InPlaceBar,
  Others,
  Rulers,
  SelectedHandles,
  ToolsInHand,
} from '../later';
import { useEditor, useSlice } from '../store/context';
import { type EditorState, sceneOf } from '../store/state';
import { openPath } from './handles/vertices';
import { layerAt } from './hit';
import { leaveFullScreen } from './looks/fullScreen';
import { Hint } from './looks/Hint';
import { useAids } from './looks/aids';
import { AidLines, SnapMarks } from './looks/Overlays';
import type { Stage } from './stage';
import type { Swept } from './tools/press';
import { TOOLS } from './tools/table';
import { TextEditing } from './tools/TextEditing';
import { useAreaMenu } from './useAreaMenu';
import { usePicture } from './usePicture';
import { toArea, toScene, viewOn, zoomed } from './view';
import { ZoomBar } from './ZoomBar';

/** What an empty scene begins with. */
const BEGIN: readonly (readonly [label: string, part: Partial<EditorState>])[] = [
  ['Pick a shape', { drawer: 'shapes' }],
  ['Write words', { mode: withTool('text') }],
  ['Bring pictures in', { drawer: 'assets' }],
];

/** What the canvas has to say: what is the matter, or what to do next. */
const Notes = () => {
  const editor = useEditor();
  const { problems, layers, solo, empty, sampling } = useSlice((s) => ({
    problems: s.problems,
    solo: s.solo,
    layers: sceneOf(s).layers,
    empty: sceneOf(s).order.length === 0 && s.mode === SELECTING && s.drawer === null,
    sampling: s.mode.kind === 'sampling',
  }));
  return (
    <>
      {sampling && <Hint>Click a colour of the picture · Esc gives up</Hint>}
      {empty && (
        <div className="pointer-events-none absolute inset-x-0 bottom-14 flex justify-center">
          <p className="flex items-center gap-2 rounded-md bg-paper py-1 pr-1 pl-3 text-ink">
            An empty scene.
            {BEGIN.map(([label, part]) => (
              <Button key={label} className="pointer-events-auto !h-[26px]" onClick={() => editor.set(part)}>
                {label}
              </Button>
            ))}
          </p>
        </div>
      )}
      {solo.length > 0 && (
        <p
          role="status"
          className="absolute top-2 right-2 flex max-w-[max(40%,20rem)] items-center gap-2 rounded-md bg-paper py-1 pr-1 pl-3"
        >
          <span className="min-w-0 truncate">
            Shown alone: {solo.length === 1 ? `“${layers[solo[0] as Id]?.name}”` : `${solo.length} layers`}
          </span>
          <Button className="!h-[26px] shrink-0" onClick={() => editor.set({ solo: [] })}>
            Show all
          </Button>
        </p>
      )}
      {problems.length > 0 && (
        <p
          role="status"
          className="pointer-events-none absolute top-2 left-2 max-w-[80%] rounded-md bg-sun-2 px-2 py-1 text-sm text-sun"
        >
          {problems.slice(0, 3).map((p) => (
            <span key={p.layer + p.message} className="block">
              “{layers[p.layer]?.name}” {p.message}
            </span>
          ))}
        </p>
      )}
    </>
  );
};

const SweptFrame = ({ view, swept: { from, to } }: Pick<Stage, 'view'> & { swept: Swept }) => {
  const [[ax, ay], [bx, by]] = [toArea(view, from), toArea(view, to)];
  return (
    <rect
      x={Math.min(ax, bx)}
      y={Math.min(ay, by)}
      width={Math.abs(bx - ax)}
      height={Math.abs(by - ay)}
      fill="var(--sky)"
      fillOpacity={0.12}
      stroke="var(--sky)"
    />
  );
};

/** The picture, drawn by the preview worker; the page itself draws only what is laid over it. */
export const CanvasArea = () => {
  const editor = useEditor();
  const area = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useSize(area);
  const [swept, setSwept] = useState<Swept | null>(null);
  const { scene, ownView, within, mode, selected, alone, compares, fullScreen } = useSlice((s) => {
    const { width, height, background } = sceneOf(s);
    return {
      // Only these of the scene are shown here: the rest of it changes with every edit.
      scene: `${width} ${height} ${background}`,
      ownView: s.view,
      within: s.within,
      mode: s.mode,
      selected: s.selection.layers.length > 0,
      alone: s.others.length === 0,
      compares: s.compare !== null,
      fullScreen: s.fullScreen,
    };
  });
  const rulers = useAids((a) => a.rulers);
  const { width, height, background } = editor.scene;
  const tool = toolOf(mode);
  const view = useMemo(
    () => viewOn(editor.state, size),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `scene` stands for what the view takes from it
    [ownView, within, scene, size],
  );
  usePicture(editor, canvas, size);

  const pointOf = useCallback((event: { clientX: number; clientY: number }): Point => {
    const box = area.current?.getBoundingClientRect();
    return [event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0)];
  }, []);
  const stage = useMemo((): Stage => ({ view, pointOf }), [view, pointOf]);
  const menu = useAreaMenu(stage);

  useEffect(() => {
    const element = area.current;
    if (!element) return;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const now = viewOn(editor.state, size);
      if (event.ctrlKey || event.metaKey) {
        editor.set({ view: zoomed(now, Math.exp(-event.deltaY * 0.0025), pointOf(event)) });
      } else {
        const [dx, dy] = event.shiftKey ? [event.deltaY, event.deltaX] : [event.deltaX, event.deltaY];
        editor.set({ view: { ...now, x: now.x - dx, y: now.y - dy } });
      }
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, [editor, size, pointOf]);

  // Leaving the screen by the browser's own key leaves the full picture too.
  useEffect(() => {
    if (!fullScreen) return;
    const onChange = () => {
      if (!document.fullscreenElement) leaveFullScreen(editor);
    };
    document.addEventListener('fullscreenchange', onChange);
    return () => document.removeEventListener('fullscreenchange', onChange);
  }, [editor, fullScreen]);

  const onDoubleClick = (event: MouseEvent) => {
    if (mode !== SELECTING) return;
    const hit = layerAt(editor, toScene(view, pointOf(event)), 4 / view.zoom);
    if (hit !== null && !openNest(editor, hit) && !writeText(editor, hit)) openPath(editor, hit);
  };

  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    const files = [...event.dataTransfer.files];
    const [x, y] = toScene(view, pointOf(event));
    if (files.length > 0) void importFiles(editor, files, [Math.round(x), Math.round(y)]);
  };

  const pan = (event: PointerEvent) => {
    event.preventDefault();
    followPointer(event, {
      onMove: ({ dx, dy }) => editor.set({ view: { ...view, x: view.x + dx, y: view.y + dy } }),
    });
  };

  /** Gives the colour under a point to what waits for it. */
  const takeColor = (start: Point, { take, then }: Extract<Mode, { kind: 'sampling' }>) => {
    const { sceneId, frame } = editor.state;
    void editor.preview.sample(sceneId, frame, start).then((color) => color !== null && take(color));
    editor.set({ mode: then });
  };

  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    // Held for long it asks for the menu.
    if (event.pointerType === 'touch') menu.note(event);
    if (event.button === 1) pan(event);
    if (event.button !== 0) return;
    const start = toScene(view, pointOf(event));
    if (mode.kind === 'sampling') {
      event.preventDefault();
      takeColor(start, mode);
      return;
    }
    const { press } = TOOLS[tool];
    if (!press) return;
    if (mode.kind === 'writing') editor.set({ mode: SELECTING });
    (document.activeElement as HTMLElement | null)?.blur();
    press({ editor, event, stage, start, onSwept: setSwept });
  };

  const corner = toArea(view, [0, 0]);
  const Over = TOOLS[tool].over;
  return (
    <PressMenu entries={menu.entries} off={mode !== SELECTING}>
      <div
        ref={area}
        role="application"
        data-area="canvas"
        tabIndex={0}
        aria-label="Canvas"
        data-testid="canvas"
        className={`${fullScreen ? 'fixed inset-0 z-40' : 'relative min-h-0 flex-1'} touch-none overflow-hidden bg-surround ${mode.kind === 'sampling' || tool !== 'select' ? 'cursor-crosshair' : ''}`}
        onPointerDown={onPointerDown}
        onDoubleClick={onDoubleClick}
        onContextMenu={menu.note}
        onDragOver={(event) => event.preventDefault()}
        onDrop={onDrop}
      >
        <div
          aria-hidden
          className="absolute shadow-[0_1px_6px_rgb(0_0_0/0.25)]"
          style={{
            left: corner[0],
            top: corner[1],
            width: width * view.zoom,
            height: height * view.zoom,
            // Shows through where the scene is transparent.
            // Its surroundings show through a scene that is seen in its place.
            background: within
              ? undefined
              : (background ?? 'repeating-conic-gradient(#c8c8c4 0 25%, #efefec 0 50%) 0 0 / 16px 16px'),
          }}
        />
        <canvas ref={canvas} data-testid="picture" className="absolute" />
        <svg className="absolute inset-0 size-full" aria-hidden>
          <AidLines {...stage} />
          {!alone && <Others {...stage} />}
          {selected && <SelectedHandles {...stage} />}
          <SnapMarks {...stage} />
          {swept && <SweptFrame view={view} swept={swept} />}
        </svg>
        <TextEditing {...stage} />
        {Over && <Over {...stage} />}
        {mode !== SELECTING && <ToolsInHand {...stage} />}
        {/* What is pressed in them is not pressed on the canvas. */}
        <div
          onPointerDown={(event) => event.stopPropagation()}
          onDoubleClick={(event) => event.stopPropagation()}
          onContextMenu={(event) => event.stopPropagation()}
        >
          {rulers && <Rulers {...stage} />}
          {compares && <CompareLine view={view} />}
          {within && <InPlaceBar />}
          <Notes />
          {fullScreen && <FullScreenBar />}
          <ZoomBar view={view} size={size} hidden={fullScreen} />
        </div>
      </div>
    </PressMenu>
  );
};
