declare module 'wawoff2' {
  /** WOFF2 → OpenType. */
  export const decompress: (bytes: Uint8Array) => Promise<Uint8Array>;
}

declare module 'omggif' {
  interface GifWriter {
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
  interface GifReader {
    readonly width: number;
    readonly height: number;
    numFrames(): number;
    loopCount(): number | null;
    frameInfo(index: number): { x: number; y: number; width: number; height: number; delay: number; disposal: number };
    decodeAndBlitFrameRGBA(index: number, pixels: Uint8ClampedArray | Uint8Array): void;
  }
  const omggif: {
    GifWriter: new (
      buffer: Uint8Array,
      width: number,
      height: number,
      options?: { loop?: number; palette?: number[] },
    ) => GifWriter;
    GifReader: new (buffer: Uint8Array) => GifReader;
  };
  export default omggif;
}
