/** Arguments of ffmpeg that several formats have. */

/** What PNGs are packed from. */
export const rgb = (opaque: boolean): readonly string[] => ['-pix_fmt', opaque ? 'rgb24' : 'rgba'];

/** Full-range RGB as BT.709 in limited range, tagged as such, so that players show the colours that were drawn. */
export const bt709 = (
  pixels: 'yuv420p' | 'yuv444p' | 'yuva420p' | 'yuv444p10le' | 'yuva444p10le',
): readonly string[] => [
  '-vf',
  `scale=in_range=full:out_range=tv:out_color_matrix=bt709:flags=lanczos+accurate_rnd+full_chroma_int,format=${pixels}`,
  ...['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709', '-color_range', 'tv'],
];
