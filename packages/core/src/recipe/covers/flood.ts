import { color, percent } from '../../document/params';
import type { Color } from '../../document/types';
import { type Effect, shortPercent } from '../types';
import { effect } from './effect';

/** A colour over all that is visible, which keeps its alpha. */
export const floodBy = (over: Color, strength: number): Effect => {
  const alpha = strength * (over.length === 9 ? parseInt(over.slice(7), 16) / 255 : 1);
  const plain = over.slice(0, 7);
  return {
    reach: 0,
    draw: (context, width, height) => {
      context.globalAlpha = alpha;
      context.globalCompositeOperation = 'source-atop';
      context.fillStyle = plain;
      context.fillRect(0, 0, width, height);
    },
    svg: () =>
      `<feFlood flood-color="${plain}" flood-opacity="${alpha}" result="over"/><feComposite in="over" in2="SourceGraphic" operator="atop"/>`,
  };
};

export const flood = effect({
  kind: 'flood',
  label: 'Colour over',
  params: { color: color('Colour', '#4F86B8'), strength: percent('Strength', 1) },
  summary: (v) => `${v.color}${v.strength < 1 ? `, ${shortPercent(v.strength)}` : ''}`,
  effect: (v) => (v.strength <= 0 ? null : floodBy(v.color, v.strength)),
});
