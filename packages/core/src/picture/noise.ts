/**
 * Gradient noise (Perlin, An Image Synthesizer, 1985), whose gradients turn as time goes on, so that it flows in place and comes
 * round after a full turn (Perlin and Neyret, Flow Noise, 2001).
 */
import type { Point } from '../document/types';
import { hashed } from '../document/random';
import { fade, type Rows } from './rows';

/** One octave of noise over a picture. */
export interface OctaveOf {
  /** Pixels of its cells. */
  readonly cell: number;
  /** Cells after which it is the same again, along both sides; 0 for never. */
  readonly period: number;
  /** Of its gradients: whole ones bring the same again. */
  readonly turns: number;
  readonly seed: number;
}

/** Where the pixels of a picture are in noise. */
export interface Lying {
  readonly width: number;
  /** The upper left corner of the picture, in pixels of the noise, which lies level there. */
  readonly from: Point;
  /** How far its x axis is turned, in radians. */
  readonly turn: number;
}

/** Noise over the rows of a picture: adds a share of one to the sums of a row, as it is or without its sign. */
export interface Octave {
  readonly add: (y: number, share: number, folded: boolean, rows: Rows) => void;
}

const DIRECTIONS = 256;
/** Gradient noise in the plane goes from minus to plus this. */
const MOST = Math.SQRT1_2;

/** The gradients of corners, as cosines and sines of one of few directions. */
class Gradients {
  readonly cos: readonly number[];
  readonly sin: readonly number[];

  constructor(private readonly of: OctaveOf) {
    // Half of them turn the other way.
    const angles = Array.from(
      { length: DIRECTIONS },
      (_, i) => 2 * Math.PI * (i / DIRECTIONS + (i & 1 ? of.turns : -of.turns)),
    );
    this.cos = angles.map(Math.cos);
    this.sin = angles.map(Math.sin);
  }

  private wrapped(n: number): number {
    const { period } = this.of;
    return period > 0 ? n - period * Math.floor(n / period) : n;
  }

  /** What the corners of a row have in common. */
  ofRow(row: number): number {
    return hashed(this.wrapped(row) * 0x27d4eb2f + this.of.seed);
  }

  /** The direction at a corner. */
  at(column: number, row: number): number {
    return hashed(this.wrapped(column) * 0x165667b1 + row) & (DIRECTIONS - 1);
  }
}

/** One that lies along the rows: they are gone through cell by cell. */
class LevelOctave implements Octave {
  private readonly first: number;
  private readonly gradientsOf: Gradients;
  private readonly cell: number;
  private readonly from: Point;
  /** By column of cells, its first pixel in a row. */
  private readonly starts: readonly number[];
  /** The gradients of two rows of corners. */
  private readonly upper: number[];
  private readonly lower: number[];
  private row = NaN;
  /** Along a row of pixels each column of corners adds a straight line: its slope and its height there. */
  private readonly slopes: number[];
  private readonly heights: number[];

  constructor(of: OctaveOf, { width, from }: Lying) {
    const { cell } = of;
    [this.cell, this.from, this.gradientsOf] = [cell, from, new Gradients(of)];
    this.first = Math.floor((from[0] + 0.5) / cell);
    const count = Math.floor((from[0] + width - 0.5) / cell) - this.first + 1;
    const start = (i: number) => Math.ceil((this.first + i) * cell - from[0] - 0.5);
    this.starts = Array.from({ length: count + 1 }, (_, i) => Math.min(width, Math.max(0, start(i))));
    // Plain lists: typed ones are looked up more slowly once any buffer has been handed to another thread.
    const list = (length: number) => Array.from({ length }, () => 0.5);
    [this.upper, this.lower] = [list(2 * count + 2), list(2 * count + 2)];
    [this.slopes, this.heights] = [list(count + 1), list(count + 1)];
  }

  private gradients(row: number, into: number[]): void {
    const { gradientsOf, first, starts } = this;
    const own = gradientsOf.ofRow(row);
    for (let i = 0; i < starts.length; i++) {
      const direction = gradientsOf.at(first + i, own);
      into[2 * i] = gradientsOf.cos[direction]!;
      into[2 * i + 1] = gradientsOf.sin[direction]!;
    }
  }

  add(y: number, share: number, folded: boolean, rows: Rows): void {
    const v = (this.from[1] + y + 0.5) / this.cell;
    const row = Math.floor(v);
    if (row !== this.row) {
      this.gradients(row, this.upper);
      this.gradients(row + 1, this.lower);
      this.row = row;
    }
    const { slopes, heights, upper, lower, starts, cell } = this;
    const down = v - row;
    const faded = fade(down);
    const scale = share / MOST;
    for (let i = 0; i < starts.length; i++) {
      slopes[i] = (upper[2 * i]! + (lower[2 * i]! - upper[2 * i]!) * faded) * scale;
      const above = upper[2 * i + 1]! * down;
      heights[i] = (above + (lower[2 * i + 1]! * (down - 1) - above) * faded) * scale;
    }
    for (let i = 0; i + 1 < starts.length; i++) {
      const x = starts[i]!;
      const [slope, height] = [slopes[i]!, heights[i]!];
      const start = (this.from[0] + x + 0.5) / cell - (this.first + i);
      // The other corner lies at t 1.
      const moreHeight = heights[i + 1]! - slopes[i + 1]! - height;
      rows.level(x, starts[i + 1]! - x, start, 1 / cell, slope, height, slopes[i + 1]! - slope, moreHeight, folded);
    }
  }
}

/** One that is turned: rows of pixels go through it aslant, from cell to cell. */
class TurnedOctave implements Octave {
  private readonly gradients: Gradients;
  /** Of the corners: upper left, upper right, lower left, lower right. */
  private readonly corners = [0.5, 0.5, 0.5, 0.5, 0.5, 0.5, 0.5, 0.5];

  constructor(
    private readonly of: OctaveOf,
    private readonly lying: Lying,
  ) {
    this.gradients = new Gradients(of);
  }

  private enter(column: number, row: number): void {
    const { gradients, corners } = this;
    for (let i = 0; i < 4; i++) {
      const direction = gradients.at(column + (i & 1), gradients.ofRow(row + (i >> 1)));
      corners[2 * i] = gradients.cos[direction]!;
      corners[2 * i + 1] = gradients.sin[direction]!;
    }
  }

  /** Adds what lies in one cell: `count` pixels from where a row of them comes into it at (u, v), each (c, s) on. */
  private addRun(
    rows: Rows,
    from: number,
    count: number,
    u: number,
    v: number,
    c: number,
    s: number,
    scale: number,
    folded: boolean,
  ): void {
    const { corners: k } = this;
    const [upperLeft, upperRight] = [k[0]! * u + k[1]! * v, k[2]! * (u - 1) + k[3]! * v];
    const [lowerLeft, lowerRight] = [k[4]! * u + k[5]! * (v - 1), k[6]! * (u - 1) + k[7]! * (v - 1)];
    const [d0, d1] = [k[0]! * c + k[1]! * s, k[2]! * c + k[3]! * s];
    const [d2, d3] = [k[4]! * c + k[5]! * s, k[6]! * c + k[7]! * s];
    rows.turned(
      from,
      count,
      u,
      v,
      c,
      s,
      upperLeft * scale,
      (upperRight - upperLeft) * scale,
      (lowerLeft - upperLeft) * scale,
      (lowerRight - lowerLeft - upperRight + upperLeft) * scale,
      d0 * scale,
      (d1 - d0) * scale,
      (d2 - d0) * scale,
      (d3 - d2 - d1 + d0) * scale,
      folded,
    );
  }

  add(y: number, share: number, folded: boolean, rows: Rows): void {
    const { width, from, turn } = this.lying;
    const { cell } = this.of;
    const [c, s] = [Math.cos(turn) / cell, Math.sin(turn) / cell];
    const scale = share / MOST;
    const [left, top] = [from[0] / cell + (y + 0.5) * s, from[1] / cell + (y + 0.5) * c];
    // Until a line of the lattice is crossed; of what lies on it next to nothing is missed.
    const until = (place: number, by: number) => (by > 0 ? (1 - place) / by : by < 0 ? -place / by : Infinity);
    for (let x = 0; x < width;) {
      const [u, v] = [left + (x + 0.5) * c, top - (x + 0.5) * s];
      const [column, row] = [Math.floor(u), Math.floor(v)];
      const [dx, dy] = [u - column, v - row];
      this.enter(column, row);
      const count = Math.max(1, Math.ceil(Math.min(until(dx, c), until(dy, -s), width - x)));
      this.addRun(rows, x, count, dx, dy, c, -s, scale, folded);
      x += count;
    }
  }
}

/** `lying.from` is where the picture's corner is in noise that is turned with it. */
export const octaveOf = (of: OctaveOf, lying: Lying): Octave =>
  Math.cos(lying.turn) > 0 && Math.abs(Math.sin(lying.turn)) < 1e-12
    ? new LevelOctave(of, lying)
    : new TurnedOctave(of, lying);
