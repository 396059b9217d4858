export interface Size {
  readonly width: number;
  readonly height: number;
}

/** A size enlarged or made smaller, in whole pixels: at least one along each side. */
export const sizeAt = ({ width, height }: Size, scale: number): Size => ({
  width: Math.max(1, Math.round(width * scale)),
  height: Math.max(1, Math.round(height * scale)),
});
