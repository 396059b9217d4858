declare module 'gifenc' {
  const gifenc: {
    quantize(
      rgba: Uint8Array | Uint8ClampedArray,
      maxColors: number,
      options?: { format?: 'rgb565' | 'rgb444' | 'rgba4444' },
    ): number[][];
  };
  export default gifenc;
}

declare module 'omggif' {
  class GifWriter {
    constructor(buffer: Uint8Array, width: number, height: number, options?: { loop?: number; palette?: number[] });
    addFrame(
      x: number,
      y: number,
      width: number,
      height: number,
      indices: Uint8Array,
      options: { delay: number; transparent?: number; disposal?: number; palette?: number[] },
    ): number;
    end(): number;
    getOutputBufferPosition(): number;
    setOutputBufferPosition(position: number): void;
  }
  class GifReader {
    constructor(buffer: Uint8Array);
    readonly width: number;
    readonly height: number;
    numFrames(): number;
    loopCount(): number | null;
    frameInfo(index: number): { x: number; y: number; width: number; height: number; delay: number; disposal: number };
    decodeAndBlitFrameRGBA(index: number, pixels: Uint8ClampedArray | Uint8Array): void;
  }
  const omggif: { GifWriter: typeof GifWriter; GifReader: typeof GifReader };
  export default omggif;
}
