/** Colours, points and paths. */
import type { Color, PathValue, Point, Value } from '../../document/types';
import { asNumber, constant, made, type Part, type Read, readHere } from '../parts';
import { COLOR, FormulaError, type Node, PATH, VECTOR, vector } from '../types';
import { arg, type Call, type FormulaFunction, number } from './call';

/** Straight lines through points. */
const pathOf =
  (closed: boolean) =>
  (call: Call): Part => {
    const points = call.args.map((_, i) => arg(call, i, VECTOR));
    return made(PATH, points, (s): PathValue => ({
      closed,
      vertices: points.map((p) => {
        const [x, y] = p.run(s) as Point;
        return [x, y, 0, 0, 0, 0];
      }),
    }));
  };

const vertexOf = (call: Call): Part => {
  const [path, index] = [arg(call, 0, PATH), number(call, 1)];
  const n = asNumber(index);
  return made(VECTOR, [path, index], (s) => {
    const { vertices } = path.run(s) as PathValue;
    const v = vertices[Math.min(vertices.length - 1, Math.max(0, Math.round(n(s)) - 1 || 0))];
    return v ? [v[0], v[1]] : [0, 0];
  });
};

const carried = (call: Call): Part => {
  const node = call.args[0] as Node;
  const point =
    node.op === 'ref'
      ? call.setting.carried(node.path)
      : 'here reads a point: {Layer / Position}, {Layer / Card / Point}.';
  if (typeof point === 'string') throw new FormulaError(point, node.at);
  return point.constant
    ? constant(VECTOR, point.at(0))
    : { type: VECTOR, constant: false, run: (s) => readHere(s, point) };
};

const inSpace = (call: Call): Part => {
  const node = call.args[0] as Node;
  if (node.op !== 'ref') throw new FormulaError('xyz reads a point of a layer: {Layer / Position}.', node.at);
  const [whole, away] = [null, 2 as const].map((part) => {
    const read = call.setting.property(node.path, part);
    if (typeof read === 'string') throw new FormulaError(read, node.at);
    return read;
  }) as [Read, Read];
  if (whole.type.kind !== 'vector')
    throw new FormulaError('xyz reads a point of a layer: {Layer / Position}.', node.at);
  return {
    type: vector(3),
    constant: false,
    run: (s) => [...(readHere(s, whole.sampler) as Point), readHere(s, away.sampler) as number] as unknown as Value,
  };
};

const alpha = (call: Call): Part => {
  const [color, opacity] = [arg(call, 0, COLOR), number(call, 1)];
  const by = asNumber(opacity);
  return made(COLOR, [color, opacity], (s) => {
    const share = Math.round(Math.min(1, Math.max(0, by(s) || 0)) * 255);
    return `${(color.run(s) as Color).slice(0, 7)}${share.toString(16).padStart(2, '0')}`.toUpperCase();
  });
};

export const SHAPES: readonly FormulaFunction[] = [
  {
    name: 'xyz',
    takes: 'point property',
    says: 'The position, pivot, scale or target of a layer in depth as three numbers; .z gives the third.',
    example: 'length(xyz({Lamp / Position}) - xyz({this / Position}))',
    compile: inSpace,
  },
  {
    name: 'here',
    takes: 'point property',
    says: 'A point of another layer or card where it stands in the picture, in the pixels of this one: joined corners read each other so.',
    example: 'here({Sign / Corner pin / Top right})',
    compile: carried,
  },
  {
    name: 'alpha',
    takes: 'color, opacity',
    says: 'A colour, so strong.',
    example: 'alpha(#FFB23E, 40%)',
    compile: alpha,
  },
  {
    name: 'polygon',
    takes: 'a, b, …more',
    says: 'The closed path through these points.',
    example: 'polygon([0, 0], [200, 0], {Corner / Position})',
    compile: pathOf(true),
  },
  {
    name: 'polyline',
    takes: 'a, b, …more',
    says: 'The open path through these points.',
    example: 'polyline([0, 0], {Stop / Position})',
    compile: pathOf(false),
  },
  {
    name: 'vertex',
    takes: 'path, number',
    says: 'A vertex of a path; the first is 1.',
    example: 'vertex({Route / Path / Path}, 2)',
    compile: vertexOf,
  },
];
