import { LIMITS } from '@kite/core/document/limits';
import type { Scene } from '@kite/core/document/types';
import type { Size } from '@kite/core/geometry/size';
import { cardsOfKind, switchCards } from '@kite/core/edits/effects';
import { setLayers } from '@kite/core/edits/layers';
import { endingWith, setGuides, setScene } from '@kite/core/edits/scenes';
import { motionBlur } from '@kite/core/recipe/steps/motionBlur';
import { COMMON_RATES, parseRate, rateLabel, secondsOf } from '@kite/core/time/rate';
import { Frame, Plus, X } from 'lucide-react';
import { useState } from 'react';
import { toast } from '../../../ui/toast';
import { Button, IconButton } from '../../../ui/Button';
import { ColorField } from '../../../ui/ColorField';
import { NumberField } from '../../../ui/NumberField';
import { Select } from '../../../ui/Select';
import { blurAllThatMoves } from '../../commands/motionBlur';
import { AdaptSize, EyeFields, ParamField } from '../../later';
import { useEditor } from '../../store/context';
import { Card } from './Card';
import { NAME_AND_FIELD, NAME_AND_VALUE } from '../row';

/** The scene's guides by number. */
const Guides = ({ scene }: { scene: Scene }) => {
  const editor = useEditor();
  const { guides } = scene;
  const write = (axis: 'x' | 'y', list: readonly number[]) =>
    editor.edit(setGuides(scene.id, { ...guides, [axis]: list }));
  return (
    <div className={NAME_AND_VALUE}>
      <span className="pt-1 text-ink-2">Guides</span>
      <div className="flex flex-col gap-1">
        {(['x', 'y'] as const).flatMap((axis) =>
          guides[axis].map((at, i) => (
            <span key={`${axis}${i}`} className="flex items-center gap-1">
              <NumberField
                label={`Guide ${axis} ${i + 1}`}
                before={<span className="text-xs text-ink-2">{axis}</span>}
                className="flex-1"
                value={at}
                decimals={0}
                onStart={() => editor.begin()}
                onChange={(v) => write(axis, guides[axis].with(i, Math.round(v)))}
                onEnd={() => editor.end()}
              />
              <IconButton
                label={`Remove guide ${axis} ${i + 1}`}
                size="small"
                onClick={() =>
                  write(
                    axis,
                    guides[axis].filter((_, k) => k !== i),
                  )
                }
              >
                <X size={12} />
              </IconButton>
            </span>
          )),
        )}
        <span className="flex gap-1">
          {(['x', 'y'] as const).map((axis) => (
            <Button
              key={axis}
              icon={<Plus size={12} />}
              className="!h-6 flex-1 !px-2 text-sm"
              onClick={() =>
                write(axis, [...guides[axis], Math.round((axis === 'x' ? scene.width : scene.height) / 2)])
              }
            >
              {axis === 'x' ? 'Upright' : 'Level'}
            </Button>
          ))}
        </span>
      </div>
    </div>
  );
};

const hasDepth = ({ layers }: Scene): boolean =>
  Object.values(layers).some(
    (layer) =>
      layer.params.depth !== undefined ||
      (layer.kind === 'drawing' && Object.values(layer.items).some(({ params }) => params.space !== undefined)),
  );

/** Blur by motion of all layers that have it, switched and set for the whole scene. */
const MotionBlur = ({ scene }: { scene: Scene }) => {
  const editor = useEditor();
  const cards = cardsOfKind(scene, motionBlur.kind);
  const on = cards.filter(({ layer, item }) => {
    const own = scene.layers[layer];
    return own?.kind === 'drawing' && own.items[item]?.on;
  }).length;
  if (cards.length === 0) {
    return (
      <div className={NAME_AND_FIELD}>
        <span className="text-ink-2">Blur by motion</span>
        <Button className="!h-[26px]" onClick={() => blurAllThatMoves(editor)}>
          All that moves
        </Button>
      </div>
    );
  }
  return (
    <>
      <label className={NAME_AND_FIELD}>
        <span className="text-ink-2">Blur by motion</span>
        <span className="flex items-center gap-2">
          <input
            type="checkbox"
            aria-label="Blur by motion"
            checked={on === cards.length}
            ref={(box) => {
              if (box) box.indeterminate = on > 0 && on < cards.length;
            }}
            onChange={() => editor.edit(switchCards(scene.id, motionBlur.kind, on < cards.length))}
          />
          on {on} of {cards.length} layer{cards.length === 1 ? '' : 's'}
        </span>
      </label>
      {on > 0 &&
        Object.entries(motionBlur.params).map(([key, param]) => (
          <ParamField key={key} param={param} refs={cards.map((card) => ({ ...card, key }))} />
        ))}
    </>
  );
};

/** The scene itself, while nothing is selected. */
export const SceneCard = ({ scene }: { scene: Scene }) => {
  const editor = useEditor();
  const set = (fields: Parameters<typeof setScene>[1]) => editor.edit(setScene(scene.id, fields));
  const gesture = { onStart: () => editor.begin(), onEnd: () => editor.end() };
  /** The size that the scene had before it was changed here, until it is said what becomes of its content. */
  const [made, setMade] = useState<Size | null>(null);
  const setLength = (length: number) => {
    const { length: before, id } = editor.scene;
    const carried = endingWith(editor.scene);
    set({ length });
    if (carried.length === 0 || length === before) return;
    const said = carried.length === 1 ? 'The layer that ended' : `${carried.length} layers that ended`;
    toast.info(`${said} with the scene ${carried.length === 1 ? 'was' : 'were'} carried along.`, {
      id: 'carried',
      action: {
        label: 'Leave their ends',
        onClick: () => editor.edit(setLayers(id, carried, { to: before })),
      },
    });
  };
  const rates = COMMON_RATES.map((r) => ({ value: rateLabel(r), label: rateLabel(r) }));
  const own = rateLabel(scene.rate);
  return (
    <Card title="Scene" icon={<Frame size={15} />} aside={scene.name}>
      {(['width', 'height'] as const).map((side) => (
        <div key={side} className={NAME_AND_FIELD}>
          <span className="text-ink-2">{side === 'width' ? 'Width' : 'Height'}</span>
          <NumberField
            label={side === 'width' ? 'Scene width' : 'Scene height'}
            value={scene[side]}
            min={1}
            max={LIMITS.side}
            decimals={0}
            unit="px"
            onChange={(v) => {
              const { width, height } = editor.scene;
              if (!made && scene.order.length > 0 && Math.round(v) !== editor.scene[side]) setMade({ width, height });
              set({ [side]: Math.round(v) });
            }}
            {...gesture}
          />
        </div>
      ))}
      {made && (made.width !== scene.width || made.height !== scene.height) && (
        <AdaptSize scene={scene} from={made} onDone={() => setMade(null)} />
      )}
      <div className={NAME_AND_FIELD}>
        <span className="text-ink-2">Frame rate</span>
        <Select
          aria-label="Scene frame rate"
          value={own}
          options={rates.some((r) => r.value === own) ? rates : [{ value: own, label: own }, ...rates]}
          onChange={(text) => {
            const rate = parseRate(text);
            if (rate) set({ rate });
          }}
        />
      </div>
      <div className={NAME_AND_FIELD}>
        <span className="text-ink-2">Length</span>
        <span className="flex items-center gap-2">
          <NumberField
            label="Scene length"
            value={scene.length}
            min={1}
            max={LIMITS.length}
            decimals={0}
            unit="f"
            className="flex-1"
            onChange={(v) => setLength(Math.round(v))}
            {...gesture}
          />
          <span className="tabular w-14 text-right text-sm text-ink-2">
            {secondsOf(scene.length, scene.rate).toFixed(2)} s
          </span>
        </span>
      </div>
      <div className={NAME_AND_FIELD}>
        <span className="text-ink-2">Background</span>
        {scene.background === null ? (
          <Button className="!h-[26px]" onClick={() => set({ background: '#FFFFFF' })}>
            None: give it one
          </Button>
        ) : (
          <span className="flex items-center gap-1.5">
            <span className="min-w-0 flex-1">
              <ColorField
                label="Background"
                value={scene.background}
                onChange={(background) => set({ background })}
                {...gesture}
              />
            </span>
            <Button className="!h-[26px] !px-2 text-sm" onClick={() => set({ background: null })}>
              None
            </Button>
          </span>
        )}
      </div>
      <div className={NAME_AND_FIELD}>
        <span className="text-ink-2">Poster</span>
        <span className="flex items-center gap-2">
          <NumberField
            label="Poster frame"
            value={scene.poster}
            min={0}
            max={scene.length - 1}
            decimals={0}
            unit="f"
            className="flex-1"
            onChange={(v) => set({ poster: Math.round(v) })}
            {...gesture}
          />
          <Button className="!h-[26px] !px-2 text-sm" onClick={() => set({ poster: editor.state.frame })}>
            This frame
          </Button>
        </span>
      </div>
      {hasDepth(scene) && <EyeFields scene={scene} />}
      <MotionBlur scene={scene} />
      <Guides scene={scene} />
      <p className="text-sm text-ink-2">
        The poster stands for the scene on its project’s card, and is a banner’s fallback image unless another is
        chosen.
      </p>
    </Card>
  );
};
