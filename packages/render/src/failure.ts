/** A render that could not be finished: where, and why in words for people. */
export class RenderFailure extends Error {
  constructor(
    readonly scene: string,
    readonly frame: number | null,
    reason: string,
  ) {
    super(frame === null ? `Scene "${scene}": ${reason}` : `Scene "${scene}", frame ${frame}: ${reason}`);
    this.name = 'RenderFailure';
  }
}

export class Cancelled extends Error {
  constructor() {
    super('The render was cancelled.');
    this.name = 'Cancelled';
  }
}

export const reasonOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));
