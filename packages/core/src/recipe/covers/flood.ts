import { color, percent } from '../../document/params';
import type { Color } from '../../document/types';
import { opacityOf, rgbOf } from '../../picture/pixels';
import { isGrained } from '../marks';
import { type Effect, type Ink, type Mark, shortPercent } from '../types';
import { brightnessBy } from './brightness';
import { changedBy, effect } from './effect';

/** A colour over all that is visible, which keeps its alpha. */
export const floodBy = (over: Color, strength: number): Effect => {
  const alpha = strength * opacityOf(over);
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

/** Whether marks are drawn by inks alone, and inks of a kind. */
const areInks = (marks: readonly Mark[], wanted: (ink: Ink) => boolean): boolean =>
  marks.every((mark) => {
    if (mark.op === 'group') return !mark.effect && !mark.bend && areInks(mark.marks, wanted);
    return mark.op !== 'picture' && wanted(mark.ink);
  });

const withInks = (marks: readonly Mark[], change: (ink: Ink) => Ink): readonly Mark[] =>
  marks.map((mark) => {
    if (mark.op === 'group') return { ...mark, marks: withInks(mark.marks, change) };
    return mark.op === 'picture' ? mark : { ...mark, ink: change(mark.ink) };
  });

/** Marks in one colour: as outlines where they are nothing else, each as strongly as it was. */
export const floodedBy = (over: Color, marks: readonly Mark[]): readonly Mark[] =>
  areInks(marks, (ink) => ink.style === 'solid' && ink.color.length === 7)
    ? withInks(marks, () => ({ style: 'solid', color: over }))
    : [changedBy(floodBy(over, 1), marks)];

/** A colour at a share of its brightness, as strong as it was. */
export const dimmedColor = (color: Color, share: number): Color => {
  const channels = rgbOf(color).map((v) =>
    Math.round(v * share)
      .toString(16)
      .padStart(2, '0'),
  );
  return `#${channels.join('')}${color.slice(7)}`.toUpperCase();
};

/** Marks at a share of their brightness, 0..1: by their inks where they have nothing else. */
export const dimmedBy = (share: number, marks: readonly Mark[]): readonly Mark[] => {
  const dimmed = (ink: Ink): Ink =>
    ink.style === 'solid'
      ? { style: 'solid', color: dimmedColor(ink.color, share) }
      : {
          ...ink,
          gradient: { stops: ink.gradient.stops.map((stop) => ({ ...stop, color: dimmedColor(stop.color, share) })) },
        };
  return areInks(marks, (ink) => !isGrained(ink)) ? withInks(marks, dimmed) : [changedBy(brightnessBy(share), marks)];
};

export const flood = effect({
  kind: 'flood',
  label: 'Colour over',
  params: { color: color('Colour', '#4F86B8'), strength: percent('Strength', 1) },
  summary: (v) => `${v.color}${v.strength < 1 ? `, ${shortPercent(v.strength)}` : ''}`,
  effect: (v) => (v.strength <= 0 ? null : floodBy(v.color, v.strength)),
});
