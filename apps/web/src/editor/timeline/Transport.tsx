import { ChevronFirst, ChevronLast, PanelBottom, PanelRight, Pause, Play, StepBack, StepForward } from 'lucide-react';
import { clockAt, framesPerSecond, parseTime, rateLabel } from '@kite/core/time/rate';
import { CommandButton } from '../commands/CommandButton';
import { Select } from '../../ui/Select';
import { useTyping } from '../../ui/useTyping';
import { useEditor, useSlice } from '../store/context';
import { sceneOf } from '../store/state';
import { drawnAs } from '../store/clock';

/** A text that is a field while it is edited; takes frames (`46`) and clocks (`1.5s`, `00:01.53`). */
const TimeField = ({ label, text, className }: { label: string; text: string; className: string }) => {
  const editor = useEditor();
  const { text: own, typed, ...typing } = useTyping();
  return (
    <input
      aria-label={label}
      className={`tabular rounded-md bg-transparent text-center hover:bg-paper-2 focus:bg-paper-2 ${className}`}
      value={own ?? text}
      onFocus={(event) => {
        typing.begin(text);
        event.target.select();
      }}
      onChange={(event) => typing.type(event.target.value)}
      onBlur={() => {
        const frame = typed === null ? null : parseTime(typed, editor.scene.rate);
        if (frame !== null) editor.seek(frame);
        typing.end();
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') {
          typing.end();
          requestAnimationFrame(() => (event.target as HTMLElement).blur());
        }
        event.stopPropagation();
      }}
    />
  );
};

const SPEEDS = ['0.25', '0.5', '1', '2'];

const WAYS = [
  { value: 'loop', label: 'Loop' },
  { value: 'once', label: 'Once' },
  { value: 'swing', label: 'Swing' },
  { value: 'through', label: 'Scenes' },
] as const;

export const Transport = () => {
  const editor = useEditor();
  const { scene, scenes, frame, playing, how, speed, drawnRate, coarse, autoKey, range, hiding } = useSlice((s) => ({
    hiding: s.hiding,
    scene: sceneOf(s),
    scenes: s.doc.order.length,
    frame: s.frame,
    playing: s.playing,
    how: s.how,
    speed: s.speed,
    drawnRate: s.drawnRate,
    coarse: s.coarse,
    autoKey: s.autoKey,
    range: s.range,
  }));
  const wanted = framesPerSecond(scene.rate) * speed;
  const late = drawnRate !== null && drawnRate < wanted * 0.95;
  return (
    <div
      data-testid="transport"
      className="@container flex h-10 shrink-0 items-center gap-1 overflow-hidden border-b border-line bg-paper px-2"
    >
      <CommandButton command="first">
        <ChevronFirst size={17} />
      </CommandButton>
      <CommandButton command="back">
        <StepBack size={16} />
      </CommandButton>
      <CommandButton
        command="play"
        label={playing ? 'Pause' : 'Play'}
        className="!size-8 !rounded-full !bg-ink !text-paper"
      >
        {playing ? <Pause size={16} /> : <Play size={16} />}
      </CommandButton>
      <CommandButton command="on">
        <StepForward size={16} />
      </CommandButton>
      <CommandButton command="last">
        <ChevronLast size={17} />
      </CommandButton>
      <TimeField label="Frame" text={String(frame)} className="w-11 text-lg font-semibold" />
      <span className="tabular flex items-center text-sm whitespace-nowrap text-ink-2">
        <span>of {scene.length}</span>
        <span className="ml-1.5 flex items-center @max-[760px]:hidden">
          ·
          <TimeField label="Time" text={clockAt(frame, scene.rate)} className="w-[66px] text-sm" />·{' '}
          {rateLabel(scene.rate)} fps
        </span>
      </span>
      <div className="ml-auto flex min-w-0 items-center gap-2">
        <span
          data-testid="drawn-rate"
          className={`tabular min-w-0 truncate text-sm ${late ? 'text-sun' : 'text-ink-2'}`}
          title="Frames really drawn in a second. What would be late is drawn at half size; frames that come too late all the same are dropped; time is never slowed."
        >
          {drawnAs({ drawnRate, coarse })}
        </span>
        {range && (
          <button
            type="button"
            aria-label="Play the whole scene again"
            className="tabular h-[26px] shrink-0 rounded-md bg-sky-2 px-2 text-sm whitespace-nowrap text-sky"
            title="The play range, set in the strip under the ruler. A press plays the whole scene again."
            onClick={() => editor.set({ range: null })}
          >
            {range[0]} – {range[1] - 1} ×
          </button>
        )}
        <Select
          aria-label="When the end is reached"
          title="When the end is reached"
          value={how}
          options={WAYS.filter(({ value }) => value !== 'through' || scenes > 1)}
          onChange={(value) => {
            editor.pause();
            editor.set({ how: WAYS.find((way) => way.value === value)?.value ?? 'loop' });
          }}
          className="w-24 shrink-0"
        />
        <Select
          aria-label="Speed"
          value={String(speed)}
          options={SPEEDS.map((value) => ({ value, label: `${value}×` }))}
          onChange={(value) => {
            editor.pause();
            editor.set({ speed: Number(value) });
          }}
          className="w-16 shrink-0"
        />
        <button
          type="button"
          aria-pressed={autoKey}
          title="Auto-key (A): while on, a change at the playhead is written as a keyframe"
          onClick={() => editor.set({ autoKey: !autoKey })}
          className={`inline-flex h-[26px] shrink-0 items-center gap-1.5 rounded-md border px-2.5 text-sm whitespace-nowrap ${autoKey ? 'border-kite font-medium text-kite' : 'border-line text-ink-2 hover:bg-paper-2'}`}
        >
          <span className={`size-2 rounded-full ${autoKey ? 'bg-kite' : 'border border-ink-2'}`} />
          Auto-key
        </button>
        <span className="flex shrink-0 items-center">
          <CommandButton command="foldTimeline" pressed={hiding.timeline}>
            <PanelBottom size={15} />
          </CommandButton>
          <CommandButton command="foldInspector" pressed={hiding.inspector}>
            <PanelRight size={15} />
          </CommandButton>
        </span>
      </div>
    </div>
  );
};
