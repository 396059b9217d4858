import type { Id, Project } from '@kite/core/document/types';
import { changeOf } from '@kite/core/document/patches';
import { patchesBetween } from '@kite/core/edits/merge';
import { whatChanged } from '@kite/core/properties/changed';
import { framesPerSecond } from '@kite/core/time/rate';
import { Pause, Play } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { useMoving } from '../../preview/useMoving';
import { Button, IconButton } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Select } from '../../ui/Select';
import { useEditor, useSlice } from '../store/context';
import type { State } from '../store/workspace';
import { ChangedList } from './ChangedList';
import { goBackTo, keepState, openAsCopy, useCheckpoints, useStateAt } from './states';

const BOX = { width: 424, height: 239 };

const Side = ({ title, doc, scene, frame }: { title: string; doc: Project; scene: Id; frame: number }) => {
  const { canvas, style } = useMoving(doc, scene, BOX, frame);
  const there = doc.scenes[scene] !== undefined;
  return (
    <figure className="min-w-0 flex-1">
      <figcaption className="mb-1 truncate font-medium" title={title}>
        {title}
      </figcaption>
      <div className="grid place-items-center overflow-hidden rounded-md bg-surround" style={{ height: BOX.height }}>
        {there ? (
          <canvas ref={canvas} role="img" aria-label={`${title}, frame ${frame}`} style={style} />
        ) : (
          <p className="rounded-md bg-paper px-2 py-1">This scene is not there.</p>
        )}
      </div>
    </figure>
  );
};

/** One clock for both: they show the same frame at any time. */
const usePlayhead = (first: number, length: number, fps: number) => {
  const [frame, setFrame] = useState(first);
  const [playing, setPlaying] = useState(false);
  const shown = useRef(first);
  useEffect(() => {
    shown.current = frame;
  }, [frame]);
  useEffect(() => {
    if (!playing) return;
    let request = 0;
    const begun = performance.now() - (shown.current / fps) * 1000;
    const tick = (now: number) => {
      setFrame(Math.floor((Math.max(0, now - begun) / 1000) * fps) % length);
      request = requestAnimationFrame(tick);
    };
    request = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(request);
  }, [playing, length, fps]);
  return { frame: Math.min(frame, length - 1), setFrame, playing, setPlaying };
};

interface ComparedProps {
  then: Project;
  name: string;
  now: Project;
  /** What `now` is called. */
  nowName: string;
}

const Compared = ({ then, name, now, nowName }: ComparedProps) => {
  const editor = useEditor();
  const scenes = useMemo(() => ({ ...then.scenes, ...now.scenes }), [then, now]);
  const [id, setId] = useState(editor.state.sceneId);
  const scene = scenes[id] ?? editor.scene;
  const length = Math.max(then.scenes[id]?.length ?? 1, now.scenes[id]?.length ?? 1);
  const { frame, setFrame, playing, setPlaying } = usePlayhead(editor.state.frame, length, framesPerSecond(scene.rate));
  const changed = useMemo(() => {
    const { patches, inverse } = changeOf(then, patchesBetween(then, { ...now, id: then.id }));
    return whatChanged([now, then], patches, inverse);
  }, [then, now]);
  return (
    <>
      <div className="mb-3 flex items-center gap-2">
        <Select
          aria-label="Scene"
          value={id}
          onChange={setId}
          options={Object.values(scenes).map((own) => ({ value: own.id, label: own.name }))}
        />
        <IconButton label={playing ? 'Pause' : 'Play both'} onClick={() => setPlaying(!playing)}>
          {playing ? <Pause size={15} /> : <Play size={15} />}
        </IconButton>
        <input
          type="range"
          aria-label="Frame"
          min={0}
          max={length - 1}
          value={frame}
          className="flex-1 accent-sky"
          onChange={(event) => {
            setPlaying(false);
            setFrame(Number(event.target.value));
          }}
        />
        <span className="tabular w-16 text-right text-ink-2">
          {frame} / {length - 1}
        </span>
      </div>
      <div className="flex gap-4">
        <Side title={name} doc={then} scene={id} frame={frame} />
        <Side title={nowName} doc={now} scene={id} frame={frame} />
      </div>
      <h3 className="mt-4 mb-1 font-semibold">
        {changed.length === 0 ? 'Nothing is different.' : `What is different in “${nowName}”`}
      </h3>
      <ChangedList changed={changed} />
    </>
  );
};

const NOW = '';

const Open = ({ state }: { state: State }) => {
  const editor = useEditor();
  const navigate = useNavigate();
  const doc = useSlice((s) => s.doc);
  const [against, setAgainst] = useState(NOW);
  const { data: then, error } = useStateAt(doc.id, state.state);
  const { data: other, error: otherError } = useStateAt(doc.id, against === NOW ? null : against);
  const { data: kept = [] } = useCheckpoints(doc.id);
  const now = against === NOW ? doc : other;
  const wrong = error ?? otherError;
  const close = () => editor.set({ comparing: null });
  return (
    <Dialog open onClose={close} title={`“${state.name}” beside another state`} width={920}>
      <label className="mb-2 flex items-center gap-2">
        <span className="text-ink-2">Beside it</span>
        <Select
          aria-label="Beside it"
          className="w-72"
          value={against}
          onChange={setAgainst}
          options={[
            { value: NOW, label: 'Now' },
            ...kept.filter(({ id }) => id !== state.state).map(({ id, name }) => ({ value: id, label: name })),
          ]}
        />
      </label>
      {wrong && <p className="text-kite">{wrong.message}</p>}
      {!wrong && !(then && now) && <p className="text-ink-2">Looking for it …</p>}
      {then && now && (
        <Compared
          then={then}
          name={state.name}
          now={now}
          nowName={kept.find(({ id }) => id === against)?.name ?? 'Now'}
        />
      )}
      <div className="mt-4 flex justify-end gap-2">
        <Button
          disabled={!then}
          onClick={() => void openAsCopy(editor, state, (to) => void navigate(`/projects/${to}`))}
        >
          Open as a copy
        </Button>
        {/^\d+$/.test(state.state) && (
          <Button disabled={!then} onClick={() => void keepState(editor, state.name, Number(state.state))}>
            Keep as a checkpoint
          </Button>
        )}
        <Button
          look="primary"
          disabled={!then}
          onClick={() => {
            close();
            void goBackTo(editor, state);
          }}
        >
          Go back to it
        </Button>
      </div>
    </Dialog>
  );
};

/** A state of the project beside how it is now, where one is looked at. */
export const CompareDialog = () => {
  const state = useSlice((s) => s.comparing);
  return state && <Open key={state.state} state={state} />;
};
