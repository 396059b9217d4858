/** Frames that have been drawn, kept for as long as nothing that they show has changed and there is room. */

interface Picture {
  readonly width: number;
  readonly height: number;
  close(): void;
}

/** What a frame's picture depends on besides its number; frames drawn from other things are forgotten. */
export type Stamp = readonly unknown[];

export type FrameRange = readonly [from: number, after: number];

export class FrameCache<P extends Picture> {
  /** The frame that was used longest ago comes first. */
  private readonly kept = new Map<number, P>();
  private stamp: Stamp = [];
  private bytes = 0;

  /** `budget` in bytes, at four a pixel. */
  constructor(private readonly budget: number) {}

  /** Forgets everything unless it was drawn from the very same things. */
  for(stamp: Stamp): this {
    if (stamp.length !== this.stamp.length || stamp.some((part, i) => part !== this.stamp[i])) {
      this.clear();
      this.stamp = stamp;
    }
    return this;
  }

  get(frame: number): P | null {
    const picture = this.kept.get(frame);
    if (!picture) return null;
    this.kept.delete(frame);
    this.kept.set(frame, picture);
    return picture;
  }

  /** Keeps a picture if it was drawn from what is kept for; the cache owns it from here on. */
  put(stamp: Stamp, frame: number, picture: P): void {
    if (stamp !== this.stamp || this.kept.has(frame)) {
      picture.close();
      return;
    }
    this.kept.set(frame, picture);
    this.bytes += picture.width * picture.height * 4;
    for (const [oldest, old] of this.kept) {
      if (this.bytes <= this.budget || oldest === frame) break;
      this.drop(oldest, old);
    }
  }

  private drop(frame: number, picture: P): void {
    this.kept.delete(frame);
    this.bytes -= picture.width * picture.height * 4;
    picture.close();
  }

  clear(): void {
    for (const [frame, picture] of this.kept) this.drop(frame, picture);
  }

  /** The frames that are kept, as runs in rising order. */
  get ranges(): FrameRange[] {
    const runs: [number, number][] = [];
    for (const frame of [...this.kept.keys()].sort((a, b) => a - b)) {
      const last = runs.at(-1);
      if (last?.[1] === frame) last[1] = frame + 1;
      else runs.push([frame, frame + 1]);
    }
    return runs;
  }
}
