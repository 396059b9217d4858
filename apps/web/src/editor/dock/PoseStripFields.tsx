import { POSE_LIMITS } from '@kite/core/document/limits';
import type { PoseStrip } from '@kite/core/document/poses';
import type { Rate } from '@kite/core/document/types';
import { dropStrip, removeHeld, setHeld, setStrip } from '@kite/core/edits/poses';
import { heldAt, stripTimes } from '@kite/core/moves/poseStrip';
import { framesPerSecond, secondsOf } from '@kite/core/time/rate';
import { useState } from 'react';
import { alike } from '../../ui/alike';
import { Button } from '../../ui/Button';
import { CheckField } from '../../ui/CheckField';
import { Menu } from '../../ui/Menu';
import { SeveralNumbers } from '../../ui/SeveralNumbers';
import { many } from '../../ui/units';
import { goToPicture } from '../commands/poses';
import { EaseSelect } from '../inspector/ease/EaseSelect';
import { useEditor, useSlice } from '../store/context';
import { sceneOf } from '../store/state';

const row = 'grid grid-cols-[76px_1fr_1fr] items-center gap-1.5';

/** What the fields are for. */
type Timed = 'hold' | 'between' | 'each';

/** How long the chosen pictures stay, or all of them. */
const Durations = ({ strip, rate }: { strip: PoseStrip; rate: Rate }) => {
  const editor = useEditor();
  const [rounded, setRounded] = useState<string | null>(null);
  const own = useSlice((s) => s.pictures);
  const chosen = strip.held.filter(({ id }) => own.includes(id));
  const which = chosen.length > 0 ? chosen : strip.held;
  const gesture = { onStart: () => editor.begin(), onEnd: () => editor.end() };
  const valuesOf = (key: Timed) => which.map((held) => held[key]);
  const set = (key: Timed, values: readonly number[]) => {
    const before = heldAt(strip, editor.state.frame);
    const own = new Map(which.map(({ id }, i) => [id, Math.round(values[i] as number)]));
    const edit = setHeld(editor.scene.id, [...own.keys()], ({ id }) => ({ [key]: own.get(id) }));
    // The picture that shows goes on showing, wherever it is now.
    if (editor.edit(edit) && before && !before.leaves) goToPicture(editor, before.held.id);
  };
  const toSeconds = (seconds: readonly number[]) => {
    const frames = seconds.map((s) => s * framesPerSecond(rate));
    const whole = frames.map((f) => Math.max(1, Math.round(f)));
    const [one, exact] = [alike(seconds), frames.every((f, i) => Math.abs(f - (whole[i] as number)) < 1e-6)];
    setRounded(
      one === null || exact ? null : `${one} s are ${Number(frames[0]?.toFixed(2))} frames here: it stays ${whole[0]}.`,
    );
    set('hold', whole);
  };
  const fieldOf = (key: Timed) => ({
    min: POSE_LIMITS[key][0],
    max: POSE_LIMITS[key][1],
    decimals: 0,
    values: valuesOf(key),
    onChange: (values: readonly number[]) => set(key, values),
    ...gesture,
  });
  return (
    <>
      <p className="text-ink-2" data-testid="which-pictures">
        {chosen.length > 0
          ? `${chosen.length} of ${many(strip.held.length, 'picture')} chosen`
          : `All ${many(strip.held.length, 'picture')}`}
      </p>
      <div className={row}>
        <span className="text-ink-2">Stays</span>
        <SeveralNumbers label="Frames that it stays" unit="f" {...fieldOf('hold')} />
        <SeveralNumbers
          label="Seconds that it stays"
          unit="s"
          min={0}
          step={0.01}
          decimals={3}
          values={valuesOf('hold').map((frames) => secondsOf(frames, rate))}
          onChange={toSeconds}
          {...gesture}
        />
      </div>
      {rounded !== null && (
        <p role="status" className="text-sm text-ink-2">
          {rounded} At 100 frames a second every hundredth is exact.
        </p>
      )}
      <div className={row}>
        <span className="text-ink-2">In between</span>
        <SeveralNumbers label="Pictures in between" {...fieldOf('between')} />
        <SeveralNumbers
          label="Frames of each in between"
          unit="f"
          disabled={which.every(({ between }) => between === 0)}
          {...fieldOf('each')}
        />
      </div>
    </>
  );
};

const SWITCHES = [
  ['loops', 'From the last back to the first'],
  ['fits', 'The scene ends with them'],
] as const;

/** Poses one after another, as pictures that stay so long each. */
export const PoseStripFields = ({ strip }: { strip: PoseStrip }) => {
  const editor = useEditor();
  const rate = useSlice((s) => sceneOf(s).rate);
  const scene = editor.scene.id;
  const { end } = stripTimes(strip);
  return (
    <section aria-label="One after another" className="flex flex-col gap-1.5">
      <h3 className="flex items-center justify-between font-medium">
        One after another
        <span className="tabular text-sm font-normal text-ink-2">
          {end - strip.from} f, {secondsOf(end - strip.from, rate).toFixed(2)} s
        </span>
      </h3>
      <Durations strip={strip} rate={rate} />
      <div className={row}>
        <span className="text-ink-2">Ease</span>
        <EaseSelect
          label="Ease in between"
          value={strip.ease}
          className="col-span-2"
          disabled={strip.held.every(({ between }) => between === 0)}
          onChange={(ease) => editor.edit(setStrip(scene, { ease }))}
        />
      </div>
      {SWITCHES.map(([key, says]) => (
        <CheckField
          key={key}
          label={says}
          checked={strip[key]}
          onChange={(on) => editor.edit(setStrip(scene, { [key]: on }))}
        />
      ))}
      <Menu
        align="start"
        entries={[
          { label: 'Keep the keyframes alone', onSelect: () => editor.edit(dropStrip(scene)) },
          {
            label: 'Take them all out',
            danger: true,
            onSelect: () =>
              editor.edit(
                removeHeld(
                  scene,
                  strip.held.map(({ id }) => id),
                ),
              ),
          },
        ]}
        trigger={<Button className="!h-6 self-start !px-2 text-sm">More</Button>}
      />
    </section>
  );
};
