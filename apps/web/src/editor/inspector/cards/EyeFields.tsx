import { WIDEST_EYE } from '@kite/core/document/limits';
import { FAR } from '@kite/core/document/params';
import type { Scene, Viewpoint } from '@kite/core/document/types';
import { setScene } from '@kite/core/edits/scenes';
import { NumberField } from '../../../ui/NumberField';
import { useEditor } from '../../store/context';
import { NAME_AND_FIELD } from '../row';

/** Of the light that shades layers in depth that are lit. */
const LIGHT_FIELDS = [
  { key: 'turn', label: 'Light from', min: -FAR, max: FAR, factor: 1, unit: '°' },
  { key: 'tilt', label: 'Light in front', min: -90, max: 90, factor: 1, unit: '°' },
  { key: 'strength', label: 'Shading', min: 0, max: 100, factor: 100, unit: '%' },
] as const;

/** From where depth is looked at, and how it is lit. */
export const EyeFields = ({ scene }: { scene: Scene }) => {
  const editor = useEditor();
  const { eye } = scene;
  const set = (fields: Partial<Viewpoint>) => editor.edit(setScene(scene.id, { eye: { ...eye, ...fields } }));
  const gesture = { onStart: () => editor.begin(), onEnd: () => editor.end() };
  return (
    <>
      <div className={NAME_AND_FIELD}>
        <span className="text-ink-2">Angle of view</span>
        <NumberField
          label="Angle of view"
          value={eye.angle}
          min={0}
          max={WIDEST_EYE}
          decimals={1}
          unit={eye.angle === 0 ? '°: parallel' : '°'}
          onChange={(angle) => set({ angle })}
          {...gesture}
        />
      </div>
      {LIGHT_FIELDS.map(({ key, label, min, max, factor, unit }) => (
        <div key={key} className={NAME_AND_FIELD}>
          <span className="text-ink-2">{label}</span>
          <NumberField
            label={label}
            value={scene.light[key] * factor}
            min={min}
            max={max}
            decimals={0}
            unit={unit}
            onChange={(v) => editor.edit(setScene(scene.id, { light: { ...scene.light, [key]: v / factor } }))}
            {...gesture}
          />
        </div>
      ))}
      <div className={NAME_AND_FIELD}>
        <span className="text-ink-2">Eye off by</span>
        <span className="grid grid-cols-2 gap-1.5">
          {(['x', 'y'] as const).map((axis, i) => (
            <NumberField
              key={axis}
              label={`Eye ${axis}`}
              value={eye.off[i] as number}
              min={-FAR}
              max={FAR}
              decimals={0}
              unit={axis}
              onChange={(v) => set({ off: i === 0 ? [v, eye.off[1]] : [eye.off[0], v] })}
              {...gesture}
            />
          ))}
        </span>
      </div>
    </>
  );
};
