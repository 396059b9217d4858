import { type Ease, isKeyed } from '@kite/core/document/types';
import { forgetEase, keepEase } from '@kite/core/edits/eases';
import { paramAt, propertyAt } from '@kite/core/properties/find';
import { type KeyChoice, setEase } from '@kite/core/edits/keyframes';
import { setBeyond } from '@kite/core/edits/properties';
import { together } from '@kite/core/document/patches';
import { Spline } from 'lucide-react';
import { KeepField } from '../../../ui/KeepField';
import { Button } from '../../../ui/Button';
import { Menu } from '../../../ui/Menu';
import { Select } from '../../../ui/Select';
import { useEditor, useSlice } from '../../store/context';
import { makeId } from '../../store/editor';
import { Card } from '../cards/Card';
import { EaseFields } from './EaseFields';
import { EasePlot } from './EasePlot';
import { EaseTile } from './EaseTile';
import { CSS_CURVES, PRESETS, same, standsFor } from './presets';

/** An ease that was copied, there to be pasted on other spans, in any project. */
const COPIED = 'kite-ease';
const small = '!h-6 !px-2 text-sm';

interface Span {
  readonly choice: KeyChoice;
  readonly ease: Ease;
  readonly from: number;
  readonly to: number;
}

const BEYOND = [
  { value: 'hold', label: 'Hold' },
  { value: 'cycle', label: 'Cycle' },
  { value: 'pingpong', label: 'Ping-pong' },
  { value: 'continue', label: 'Carry on' },
  { value: 'offset', label: 'Cycle on from there' },
] as const;

/** Shown while keyframes are selected: the ease of the spans that start at them. */
export const EaseCard = () => {
  const editor = useEditor();
  const { doc, keys } = useSlice((s) => ({ doc: s.doc, keys: s.selection.keys }));
  const spans: Span[] = keys.flatMap((choice) => {
    const property = propertyAt(doc, choice.ref);
    if (!isKeyed(property)) return [];
    return property.keys.flatMap((key, i) => {
      const next = property.keys[i + 1];
      return next && choice.frames.includes(key.frame)
        ? [{ choice: { ref: choice.ref, frames: [key.frame] }, ease: key.ease, from: key.frame, to: next.frame }]
        : [];
    });
  });
  const first = spans[0];
  const ends = keys.map((k) => k.ref);
  const property = ends[0] && propertyAt(doc, ends[0]);
  if (!isKeyed(property) || !ends[0]) return null;
  const label = paramAt(doc, ends[0])?.label ?? '';
  const gesture = { onStart: () => editor.begin(), onEnd: () => editor.end() };
  const set = (ease: Ease) =>
    editor.edit(
      setEase(
        spans.map((s) => s.choice),
        ease,
      ),
    );
  return (
    <Card
      title="Ease"
      icon={<Spline size={15} />}
      aside={first ? (spans.length === 1 ? `${label}, ${first.from} → ${first.to}` : `${spans.length} spans`) : label}
    >
      {first ? (
        <>
          <div role="group" aria-label="Eases" className="grid grid-cols-4 gap-1">
            {PRESETS.map(({ name, ease }) => (
              <EaseTile
                key={name}
                name={name}
                ease={standsFor(ease, first.ease) ? first.ease : ease}
                on={standsFor(ease, first.ease)}
                onChoose={() => set(ease)}
              />
            ))}
            {doc.eases.map(({ id, name, ease }) => (
              <EaseTile
                key={id}
                name={name}
                ease={ease}
                on={same(ease, first.ease)}
                onChoose={() => set(ease)}
                onRemove={() => editor.edit(forgetEase(id))}
              />
            ))}
          </div>
          <EasePlot ease={first.ease} onChange={set} {...gesture} />
          <EaseFields ease={first.ease} onChange={set} {...gesture} />
          <div className="flex gap-1">
            <Menu
              align="start"
              entries={CSS_CURVES.map(({ name, ease }) => ({ label: name, onSelect: () => set(ease) }))}
              trigger={<Button className={small}>CSS</Button>}
            />
            <Button className={small} onClick={() => localStorage.setItem(COPIED, JSON.stringify(first.ease))}>
              Copy
            </Button>
            <Button
              className={small}
              onClick={() => {
                const copied = localStorage.getItem(COPIED);
                if (copied) set(JSON.parse(copied) as Ease);
              }}
            >
              Paste
            </Button>
            <KeepField
              label="Name for this ease"
              onKeep={(name) => editor.edit(keepEase({ id: makeId(), name, ease: first.ease }))}
            />
          </div>
        </>
      ) : (
        <p className="text-ink-2">The last keyframe has no span after it. Select one before it to shape the ease.</p>
      )}
      <div className="grid grid-cols-2 gap-2">
        {(['before', 'after'] as const).map((end) => (
          <label key={end} className="flex flex-col gap-0.5 text-sm text-ink-2">
            {end === 'before' ? 'Before the first key' : 'After the last key'}
            <Select
              value={property[end] ?? 'hold'}
              options={BEYOND}
              onChange={(value) =>
                editor.edit(
                  together(
                    end === 'before' ? 'Before the first key' : 'After the last key',
                    ends.map((ref) => setBeyond(ref, end, value as (typeof BEYOND)[number]['value'])),
                  ),
                )
              }
            />
          </label>
        ))}
      </div>
    </Card>
  );
};
