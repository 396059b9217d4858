/** Scenes of many layers, all moving. */
import { newDrawing, newItem, newScene } from '@kite/core/document/make';
import type { Scene } from '@kite/core/document/types';

const EASE = { kind: 'bezier', x1: 0.4, y1: 0, x2: 0.4, y2: 1 } as const;

export interface Crowd {
  /** Layers, of a few cards each. */
  readonly layers: number;
  /** How many of them, from the first, are blurred and have a shadow. */
  readonly soft?: number;
  /** Keyframes of each. */
  readonly keys?: number;
  /** In frames. */
  readonly length?: number;
}

export const crowd = ({ layers: count, soft = 0, keys: perLayer = 3, length = 120 }: Crowd): Scene => {
  const scene = newScene('crowd', 'Crowd', {
    width: 1920,
    height: 1080,
    rate: { num: 30, den: 1 },
    length,
    background: '#1B1F4B',
  });
  const layers = Array.from({ length: count }, (_, i) => {
    const layer = newDrawing(
      scene,
      `l${i}`,
      `Window ${i + 1}`,
      [
        newItem('s', i % 2 ? 'rectangle' : 'star', {}),
        newItem('t', 'trim', { end: 0.9 }),
        newItem('k', 'stroke', { width: 6, color: '#FFB23E' }),
        newItem('r', 'repeater', { copies: 3, position: [12, 8], delay: 2 }),
        ...(i < soft ? [newItem('b', 'blur', { amount: 6 }), newItem('h', 'shadow', {})] : []),
      ],
      { position: [60 + (i % 20) * 95, 60 + Math.floor((i % 200) / 20) * 105] },
    );
    const keys = Array.from({ length: perLayer }, (_key, k) => ({
      frame: Math.round((k * (length - 1)) / (perLayer - 1)),
      value: k % 2 ? 90 : 0,
      ease: EASE,
    }));
    return { ...layer, params: { ...layer.params, rotation: { keys }, scale: { value: [0.35, 0.35] as const } } };
  });
  return { ...scene, layers: Object.fromEntries(layers.map((l) => [l.id, l])), order: layers.map((l) => l.id) };
};
