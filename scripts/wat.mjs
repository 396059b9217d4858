/** The text format of WebAssembly, compiled. */
import wabt from 'wabt';

const FEATURES = { simd: true };

/** Its bytes in base64. @throws Error that says what is wrong with it, and where. */
export const compiledWat = async (source) => {
  const { parseWat } = await wabt();
  const module = parseWat('loops.wat', source, FEATURES);
  module.validate(FEATURES);
  return Buffer.from(module.toBinary({}).buffer).toString('base64');
};
