import type { Edit } from '@kite/core/document/patches';
import { addSwatch, removeSwatch } from '@kite/core/edits/swatches';
import { type ReactNode, useEffect, useMemo, useRef, useState } from 'react';
import { Group, Panel, Separator, useDefaultLayout } from 'react-resizable-panels';
import { Link, useLocation, useMatch, useNavigate, useParams } from 'react-router';
import { useStore } from 'zustand';
import { CanvasArea } from './canvas/CanvasArea';
import { Dock } from './dock/Dock';
import { followFirstSteps } from './firstSteps/steps';
import { Header } from './header/Header';
import { Inspector } from './inspector/Inspector';
import { goToArea } from './commands/areas';
import { runPressed, takesText } from './commands/keyboard';
import { COMMANDS } from './commands/table';
import {
  AsideView,
  CompareDialog,
  fetchRest,
  LinkPopover,
  OrderDialog,
  PAGES,
  PanesDialog,
  RemovingDialog,
  RevealDialog,
  SolidDialog,
  SvgDialog,
} from './later';
import { paste } from './importing/paste';
import { EditorContext, useEditor, useSlice } from './store/context';
import { ColorToolsContext } from '../ui/colorTools';
import { whenIdle } from '../ui/whenIdle';
import { type Editor, makeId } from './store/editor';
import { SearchDialog } from './search/SearchDialog';
import { openEditor } from './store/open';
import { Timeline } from './timeline/Timeline';
import { Transport } from './timeline/Transport';

/** Opens the project in the address, and closes it when the address changes. */
const useOpened = (project: string, scene: string | undefined): { editor: Editor | null; error: string | null } => {
  const [opened, setOpened] = useState<{ editor: Editor | null; error: string | null }>({ editor: null, error: null });
  useEffect(() => {
    let gone = false;
    let mine: Editor | null = null;
    openEditor(project, scene).then(
      (editor) => {
        mine = editor;
        if (gone) editor.close();
        else setOpened({ editor, error: null });
      },
      (error: unknown) => {
        if (!gone) setOpened({ editor: null, error: error instanceof Error ? error.message : String(error) });
      },
    );
    return () => {
      gone = true;
      mine?.close();
      setOpened({ editor: null, error: null });
    };
    // The scene in the address only says where to begin; going to another does not open the project again.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [project]);
  return opened;
};

export const EditorPage = () => {
  const { project = '', scene } = useParams();
  const { editor, error } = useOpened(project, scene);
  if (error) {
    return (
      <main className="grid h-full place-items-center text-center">
        <p>
          This project could not be opened. {error}
          <br />
          <Link to="/" className="text-sky underline">
            Go to your projects
          </Link>
        </p>
      </main>
    );
  }
  if (!editor) return <main className="grid h-full place-items-center text-ink-2">Opening the project …</main>;
  return (
    <EditorContext.Provider value={editor}>
      <EditorColors>
        <Workspace project={project} />
      </EditorColors>
    </EditorContext.Provider>
  );
};

/** An edit of its own, though a colour is being chosen. */
const besides = (editor: Editor, edit: Edit): void => {
  const { gesturing } = editor.state;
  editor.end();
  editor.edit(edit);
  if (gesturing) editor.begin();
};

/** The project's swatches, and colours from the canvas, for every colour field of the editor. */
const EditorColors = ({ children }: { children: ReactNode }) => {
  const editor = useEditor();
  const swatches = useStore(editor.store, (s) => s.doc.swatches);
  const tools = useMemo(
    () => ({
      swatches,
      addSwatch: (color: string) => {
        const known = swatches.find((s) => s.color === color);
        if (known) return known.id;
        const id = makeId();
        besides(editor, addSwatch({ id, name: color, color }));
        return id;
      },
      removeSwatch: (id: string) => besides(editor, removeSwatch(id)),
      sample: (take: (color: string) => void) =>
        editor.set({ mode: { kind: 'sampling', take, then: editor.state.mode } }),
    }),
    [editor, swatches],
  );
  return <ColorToolsContext value={tools}>{children}</ColorToolsContext>;
};

/**
 * A field that a press leaves is left before what is pressed does anything: that may keep the focus where it is, take the field away, or
 * change something itself.
 */
const leaveField = (pressed: EventTarget | null): void => {
  const field = document.activeElement;
  if ((field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement) && field !== pressed) field.blur();
};

/** What tells whether a button is down. */
const POINTER = ['pointerdown', 'pointermove', 'pointerup', 'pointercancel'] as const;

/** What keys do where no scene is seen. */
const ON_PAGES = [COMMANDS.undo, COMMANDS.redo];

const Workspace = ({ project }: { project: string }) => {
  const editor = useEditor();
  const { scene } = useParams();
  const Page = PAGES[useMatch('/projects/:project/:page')?.params.page ?? ''];
  const away = Page !== undefined;
  const navigate = useNavigate();
  const sceneId = useStore(editor.store, (s) => s.sceneId);
  const name = useStore(editor.store, (s) => s.doc.name);

  useEffect(() => followFirstSteps(editor), [editor]);

  // What is to be replaced in a starter stands beside it as it is opened.
  const { state: sent } = useLocation() as { state: { drawer?: 'replace' } | null };
  const drawer = sent?.drawer;
  useEffect(() => {
    if (drawer) editor.set({ drawer });
  }, [editor, drawer]);

  // The address follows the scene, and the scene the address (back and forward).
  useEffect(() => {
    if (scene && scene !== editor.state.sceneId) editor.showScene(scene);
  }, [editor, scene]);
  const shown = useRef(sceneId);
  useEffect(() => {
    // Pages are of all scenes, until another one is gone to.
    if (away && shown.current === sceneId) return;
    shown.current = sceneId;
    void navigate(`/projects/${project}/scenes/${sceneId}`, { replace: !scene });
    // Only a change of the scene shown is a step of the way.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [sceneId]);
  useEffect(() => {
    document.title = `${name} · Agile Kite`;
  }, [name]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => void runPressed(editor, event, away ? ON_PAGES : undefined);
    const onPaste = (event: ClipboardEvent) => {
      if (!takesText(event.target) && !away) paste(editor, event.clipboardData);
    };
    const onLeave = (event: BeforeUnloadEvent) => {
      if (editor.hasUnsent) event.preventDefault();
    };
    const onPointer = ({ type, buttons, isPrimary, target }: PointerEvent) => {
      editor.pressed = type !== 'pointercancel' && buttons > 0;
      if (type !== 'pointerdown' || !isPrimary) return;
      // A text on the canvas is pressed to be written on.
      if (editor.state.mode.kind !== 'writing') leaveField(target);
      editor.settle();
    };
    for (const type of POINTER) window.addEventListener(type, onPointer, true);
    window.addEventListener('keydown', onKey);
    window.addEventListener('paste', onPaste);
    window.addEventListener('beforeunload', onLeave);
    return () => {
      for (const type of POINTER) window.removeEventListener(type, onPointer, true);
      window.removeEventListener('keydown', onKey);
      window.removeEventListener('paste', onPaste);
      window.removeEventListener('beforeunload', onLeave);
    };
  }, [editor, away]);

  return (
    <div className="flex h-full flex-col">
      <button
        type="button"
        className="absolute top-1 left-1 z-50 -translate-y-20 rounded-md bg-ink px-3 py-1 text-paper focus:translate-y-0"
        onClick={() => goToArea('canvas')}
      >
        Skip to the canvas (F6 goes on)
      </button>
      <Header />
      {Page ? <Page /> : <Stage />}
    </div>
  );
};

/** The picture, and beside it a second view where one is wanted. */
const Views = () => {
  const editor = useEditor();
  const beside = useStore(editor.store, (s) => s.aside !== null);
  return (
    <Group orientation="horizontal" id="kite-views">
      <Panel id="view-first" minSize="30%" className="flex flex-col">
        <CanvasArea />
      </Panel>
      {beside && (
        <>
          <Separator className="relative z-10 w-px bg-line outline-none after:absolute after:inset-y-0 after:-left-1 after:w-2 after:cursor-col-resize hover:bg-sky focus-visible:bg-sky" />
          <Panel id="view-second" defaultSize="42%" minSize="25%" className="flex flex-col">
            <AsideView />
          </Panel>
        </>
      )}
    </Group>
  );
};

/** The picture above the timeline, each as tall as it was left; the transport stays where that is folded away. */
const Halves = () => {
  const editor = useEditor();
  const folded = useStore(editor.store, (s) => s.hiding.timeline);
  const layout = useDefaultLayout({ id: 'kite-editor', panelIds: HALVES, storage: localStorage });
  return (
    <main className="flex min-w-0 flex-1 flex-col">
      <Group orientation="vertical" id="kite-editor" className="min-h-0 flex-1" {...layout}>
        <Panel id="upper" defaultSize="57%" minSize="25%" className="flex flex-col">
          <Views />
        </Panel>
        {!folded && (
          <>
            <Separator className="relative z-10 h-px bg-line outline-none after:absolute after:inset-x-0 after:-top-1 after:h-2 after:cursor-row-resize hover:bg-sky focus-visible:bg-sky" />
            <Panel id="lower" minSize="20%" className="flex flex-col" data-area="timeline">
              <Transport />
              <Timeline />
            </Panel>
          </>
        )}
      </Group>
      {folded && (
        <div data-area="timeline" className="border-t border-line">
          <Transport />
        </div>
      )}
    </main>
  );
};
const HALVES = ['upper', 'lower'];

/** The dialogs that are open. */
const Dialogs = () => {
  const open = useSlice((s) => ({
    order: s.ordering !== null,
    panes: s.paning !== null,
    reveal: s.revealing !== null,
    link: s.linking !== null,
    removing: s.removing !== null,
    compare: s.comparing !== null,
    search: s.searching,
    solid: s.building !== null,
    svg: s.importing !== null,
  }));
  useEffect(() => whenIdle(fetchRest), []);
  return (
    <>
      {open.order && <OrderDialog />}
      {open.panes && <PanesDialog />}
      {open.reveal && <RevealDialog />}
      {open.link && <LinkPopover />}
      {open.removing && <RemovingDialog />}
      {open.compare && <CompareDialog />}
      {open.search && <SearchDialog />}
      {open.solid && <SolidDialog />}
      {open.svg && <SvgDialog />}
    </>
  );
};

/** Where a scene is worked on. */
const Stage = () => {
  const editor = useEditor();
  const folded = useStore(editor.store, (s) => s.hiding.inspector);
  return (
    <div className="flex min-h-0 flex-1">
      <Dock />
      <Halves />
      {!folded && <Inspector />}
      <Dialogs />
    </div>
  );
};
