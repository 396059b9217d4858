import { Maximize, ZoomIn, ZoomOut } from 'lucide-react';
import { type DragEvent, type MouseEvent, type PointerEvent, useCallback, useEffect, useRef, useState } from 'react';
import type { Point } from '@kite/core/document/types';
import { IconButton } from '../../ui/Button';
import { followPointer } from '../../ui/drag';
import { useEditor, useSlice } from '../store/context';
import { sceneOf } from '../store/state';
import { DrawPath } from './DrawPath';
import { addText, writeText } from '../commands';
import { openNest } from '../nesting';
import { importFiles } from '../importing/importFiles';
import { AidsMenu } from './AidsMenu';
import { CutOutTool } from './CutOut';
import { drawShape } from './drawShape';
import { GradientHandles } from './GradientHandles';
import { AidLines, Rulers, SnapMarks } from './Overlays';
import { GroupHandles } from './GroupHandles';
import { CompareLine } from './CompareLine';
import { leaveFullScreen } from './fullScreen';
import { FullScreenBar } from './FullScreenBar';
import { LooksMenu } from './LooksMenu';
import { onionOf } from './onion';
import { MotionPaths } from './MotionPath';
import { openPath, PathEditing, shapedVertices } from './PathEditing';
import { TextEditing } from './TextEditing';
import { Handles } from './Handles';
import { layerAt, layersIn } from './hit';
import { moveSelection } from './transforms';
import { fitView, shownPart, type Size, toArea, toScene, zoomed } from './view';

/** Gives the canvas the size of a picture, and stands it where the picture was drawn for. */
const place = (canvas: HTMLCanvasElement, [x, y]: readonly [number, number], { width, height }: Size): void => {
  if (canvas.width !== width) canvas.width = width;
  if (canvas.height !== height) canvas.height = height;
  const ratio = window.devicePixelRatio;
  const css = { left: x, top: y, width, height };
  for (const [side, length] of Object.entries(css)) canvas.style.setProperty(side, `${length / ratio}px`);
};

/** The picture, drawn by the preview worker; the page itself draws only what is laid over it. */
export const CanvasArea = () => {
  const editor = useEditor();
  const area = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [size, setSize] = useState<Size>({ width: 0, height: 0 });
  const [marquee, setMarquee] = useState<{ from: Point; to: Point } | null>(null);
  const {
    doc,
    sceneId,
    frame,
    view: ownView,
    tool,
    problems,
    solo,
    sampling,
    fullScreen,
    onion,
    compare,
    selected,
  } = useSlice((s) => ({
    doc: s.doc,
    sceneId: s.sceneId,
    frame: s.frame,
    view: s.view,
    tool: s.tool,
    problems: s.problems,
    solo: s.solo,
    sampling: s.sampling,
    fullScreen: s.fullScreen,
    onion: s.onion,
    compare: s.compare,
    // Onion skins are of what is selected.
    selected: s.onion ? s.selection.layers : NONE,
  }));
  const scene = sceneOf(editor.state);
  const view = ownView ?? fitView(scene, size);

  useEffect(() => {
    const element = area.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      const box = entry?.contentRect;
      if (box) setSize({ width: Math.floor(box.width), height: Math.floor(box.height) });
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  // Each bitmap goes straight to the screen; how many come in a second is what the transport shows.
  useEffect(() => {
    const context = canvas.current?.getContext('bitmaprenderer');
    let times: number[] = [];
    let lastFrame = -1;
    return editor.preview.listen(({ bitmap, problems: found, frame: drawn, at, id }) => {
      if (bitmap && canvas.current && context) {
        place(canvas.current, at, bitmap);
        context.transferFromImageBitmap(bitmap);
        canvas.current.dataset.frame = String(drawn);
        canvas.current.dataset.drawn = String(id);
      }
      editor.catchUp();
      if (found.length > 0 || editor.state.problems.length > 0) editor.set({ problems: found });
      if (!editor.state.playing) {
        times = [];
        return;
      }
      if (drawn === lastFrame) return;
      lastFrame = drawn;
      const now = performance.now();
      times = [...times.filter((t) => now - t < 1000), now];
      const first = times[0] as number;
      if (times.length > 4 && (times.length % 5 === 0 || now - first > 950)) {
        editor.set({ drawnRate: ((times.length - 1) * 1000) / (now - first) });
      }
    });
  }, [editor]);

  useEffect(() => {
    if (size.width < 1 || size.height < 1) return;
    const shown = shownPart(scene, size, view, window.devicePixelRatio);
    if (!shown) return;
    const skins = onion && !editor.state.playing ? onionOf(scene, frame, onion, selected) : null;
    editor.preview.draw({ scene: sceneId, frame, solo, onion: skins, compare, ...shown });
    // `view` is made anew each time; its numbers are what counts.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [editor, doc, sceneId, frame, solo, onion, compare, selected, size.width, size.height, view.zoom, view.x, view.y]);

  const pointOf = useCallback((event: { clientX: number; clientY: number }): Point => {
    const box = area.current?.getBoundingClientRect();
    return [event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0)];
  }, []);

  useEffect(() => {
    const element = area.current;
    if (!element) return;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const now = editor.state.view ?? fitView(editor.scene, size);
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

  const pan = (event: PointerEvent) => {
    followPointer(event, {
      onMove: ({ dx, dy }) => editor.set({ view: { ...view, x: view.x + dx, y: view.y + dy } }),
    });
  };

  /** A click sets a text, or opens the one that is there; a drag gives it a box. */
  const placeText = (event: PointerEvent, start: Point) => {
    followPointer(event, {
      onMove: ({ event: now }) => setMarquee({ from: start, to: toScene(view, pointOf(now)) }),
      onEnd: ({ event: now }, moved) => {
        setMarquee(null);
        const to = toScene(view, pointOf(now));
        const hit = layerAt(editor, start, 4 / view.zoom);
        if (moved) {
          const at: Point = [Math.round((start[0] + to[0]) / 2), Math.round((start[1] + to[1]) / 2)];
          addText(editor, at, { width: Math.abs(to[0] - start[0]), height: Math.abs(to[1] - start[1]) });
        } else if (hit === null || !writeText(editor, hit)) {
          addText(editor, [Math.round(start[0]), Math.round(start[1])]);
        }
      },
      onCancel: () => setMarquee(null),
    });
  };

  const onDoubleClick = (event: MouseEvent) => {
    if (tool !== 'select') return;
    const hit = layerAt(editor, toScene(view, pointOf(event)), 4 / view.zoom);
    if (hit !== null && !openNest(editor, hit) && !writeText(editor, hit)) openPath(editor, hit);
  };

  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    const files = [...event.dataTransfer.files];
    const [x, y] = toScene(view, pointOf(event));
    if (files.length > 0) void importFiles(editor, files, [Math.round(x), Math.round(y)]);
  };

  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button === 1) {
      event.preventDefault();
      pan(event);
      return;
    }
    if (event.button !== 0 || tool === 'path') return;
    const take = editor.state.sampling;
    if (take) {
      event.preventDefault();
      void editor.preview
        .sample(sceneId, frame, toScene(view, pointOf(event)))
        .then((color) => color !== null && take(color));
      editor.set({ sampling: null });
      return;
    }
    editor.set({ writing: null });
    (document.activeElement as HTMLElement | null)?.blur();
    const start = toScene(view, pointOf(event));
    if (tool === 'text') {
      placeText(event, start);
      return;
    }
    if (tool !== 'select') {
      drawShape(editor, tool, event, start, view.zoom, pointOf);
      return;
    }
    const hit = layerAt(editor, start, 4 / view.zoom);
    const { layers } = editor.state.selection;
    if (hit !== null) {
      if (event.shiftKey) editor.toggleLayer(hit);
      else if (!layers.includes(hit)) editor.select({ layers: [hit] });
      moveSelection(editor, event, view.zoom, pointOf);
      return;
    }
    const shaped = shapedVertices(editor, view);
    if (shaped) {
      // While a path is open an empty place sweeps over its vertices; a click there closes it.
      followPointer(event, {
        onMove: ({ event: now }) => {
          const to = toScene(view, pointOf(now));
          setMarquee({ from: start, to });
          const between = (a: number, b: number, v: number) => v >= Math.min(a, b) && v <= Math.max(a, b);
          const inside = shaped.flatMap(([x, y], i) =>
            between(start[0], to[0], x) && between(start[1], to[1], y) ? [i] : [],
          );
          editor.set({ vertices: inside });
        },
        onEnd: (_drag, moved) => {
          setMarquee(null);
          if (!moved) editor.select({});
        },
        onCancel: () => setMarquee(null),
      });
      return;
    }
    const before = event.shiftKey ? layers : [];
    if (!event.shiftKey) editor.select({});
    followPointer(event, {
      onMove: ({ event: now }) => {
        const to = toScene(view, pointOf(now));
        setMarquee({ from: start, to });
        editor.select({ layers: [...new Set([...before, ...layersIn(editor, start, to)])] });
      },
      onEnd: () => setMarquee(null),
      onCancel: () => setMarquee(null),
    });
  };

  const zoomBy = (factor: number) => editor.set({ view: zoomed(view, factor, [size.width / 2, size.height / 2]) });
  const actual = () => {
    const whole = zoomed(view, 1 / view.zoom, [size.width / 2, size.height / 2]);
    editor.set({ view: { zoom: 1, x: Math.round(whole.x), y: Math.round(whole.y) } });
  };
  const corner = toArea(view, [0, 0]);

  return (
    <div
      ref={area}
      role="application"
      data-area="canvas"
      tabIndex={0}
      aria-label="Canvas"
      data-testid="canvas"
      className={`${fullScreen ? 'fixed inset-0 z-40' : 'relative min-h-0 flex-1'} touch-none overflow-hidden bg-surround ${tool === 'select' && !sampling ? '' : 'cursor-crosshair'}`}
      onPointerDown={onPointerDown}
      onDoubleClick={onDoubleClick}
      onDragOver={(event) => event.preventDefault()}
      onDrop={onDrop}
    >
      <div
        aria-hidden
        className="absolute shadow-[0_1px_6px_rgb(0_0_0/0.25)]"
        style={{
          left: corner[0],
          top: corner[1],
          width: scene.width * view.zoom,
          height: scene.height * view.zoom,
          // Shows through where the scene is transparent.
          background: scene.background ?? 'repeating-conic-gradient(#c8c8c4 0 25%, #efefec 0 50%) 0 0 / 16px 16px',
        }}
      />
      <canvas ref={canvas} data-testid="picture" className="absolute" />
      <svg className="absolute inset-0 size-full" aria-hidden>
        <AidLines view={view} pointOf={pointOf} />
        <Handles view={view} pointOf={pointOf} />
        <MotionPaths view={view} pointOf={pointOf} />
        <PathEditing view={view} pointOf={pointOf} />
        <GroupHandles view={view} pointOf={pointOf} />
        <GradientHandles view={view} pointOf={pointOf} />
        <SnapMarks view={view} />
        {marquee && (
          <rect
            x={Math.min(toArea(view, marquee.from)[0], toArea(view, marquee.to)[0])}
            y={Math.min(toArea(view, marquee.from)[1], toArea(view, marquee.to)[1])}
            width={Math.abs(marquee.to[0] - marquee.from[0]) * view.zoom}
            height={Math.abs(marquee.to[1] - marquee.from[1]) * view.zoom}
            fill="var(--sky)"
            fillOpacity={0.12}
            stroke="var(--sky)"
          />
        )}
      </svg>
      <Rulers view={view} pointOf={pointOf} />
      <CompareLine view={view} />
      <TextEditing view={view} pointOf={pointOf} />
      <CutOutTool view={view} pointOf={pointOf} />
      {tool === 'path' && <DrawPath view={view} pointOf={pointOf} />}
      {sampling && (
        <p className="pointer-events-none absolute top-2 left-1/2 -translate-x-1/2 rounded-md bg-ink px-3 py-1 text-sm text-paper">
          Click a colour of the picture · Esc gives up
        </p>
      )}
      {scene.order.length === 0 && tool === 'select' && (
        <p className="pointer-events-none absolute inset-x-0 bottom-14 text-center">
          <span className="rounded-md bg-paper px-3 py-1.5 text-ink">
            An empty scene. Pick a shape in the dock on the left and drag it out here.
          </span>
        </p>
      )}
      {problems.length > 0 && (
        <p role="status" className="absolute top-2 left-2 max-w-[80%] rounded-md bg-sun-2 px-2 py-1 text-sm text-sun">
          {problems.slice(0, 3).map((p) => (
            <span key={p.layer + p.message} className="block">
              “{scene.layers[p.layer]?.name}” {p.message}
            </span>
          ))}
        </p>
      )}
      {fullScreen && <FullScreenBar />}
      <div
        hidden={fullScreen}
        className="absolute right-2 bottom-2 flex items-center gap-0.5 rounded-md border border-line bg-paper p-0.5"
        onPointerDown={(event) => event.stopPropagation()}
      >
        <LooksMenu />
        <AidsMenu />
        <IconButton label="Zoom out" side="top" onClick={() => zoomBy(1 / 1.25)}>
          <ZoomOut size={15} />
        </IconButton>
        <button
          type="button"
          aria-label="Zoom to 100 %"
          className="tabular h-7 w-12 rounded-md text-sm hover:bg-paper-2"
          onClick={actual}
        >
          {Math.round(view.zoom * 100)} %
        </button>
        <IconButton label="Zoom in" side="top" onClick={() => zoomBy(1.25)}>
          <ZoomIn size={15} />
        </IconButton>
        <IconButton label="Fit" shortcut="0" side="top" onClick={() => editor.set({ view: null })}>
          <Maximize size={15} />
        </IconButton>
      </div>
    </div>
  );
};

const NONE: readonly string[] = [];
