import { color, percent } from '../../document/params';
import type { Color } from '../../document/types';
import { type Effect, type Mark, shortPercent } from '../types';
import { changedBy, effect } from './effect';

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

/** Marks in one colour: as outlines where they are nothing else, each as strongly as it was. */
export const floodedBy = (over: Color, marks: readonly Mark[]): readonly Mark[] => {
  const flat = (mark: Mark): boolean =>
    mark.op === 'fill' || mark.op === 'stroke'
      ? mark.ink.style === 'solid' && mark.ink.color.length === 7
      : mark.op === 'group' && !mark.effect && !mark.bend && mark.marks.every(flat);
  const inked = (mark: Mark): Mark => {
    if (mark.op === 'group') return { ...mark, marks: mark.marks.map(inked) };
    return mark.op === 'picture' ? mark : { ...mark, ink: { style: 'solid', color: over } };
  };
  return marks.every(flat) ? marks.map(inked) : [changedBy(floodBy(over, 1), marks)];
};

export const flood = effect({
  kind: 'flood',
  label: 'Colour over',
  params: { color: color('Colour', '#4F86B8'), strength: percent('Strength', 1) },
  summary: (v) => `${v.color}${v.strength < 1 ? `, ${shortPercent(v.strength)}` : ''}`,
  effect: (v) => (v.strength <= 0 ? null : floodBy(v.color, v.strength)),
});
