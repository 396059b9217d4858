/** The fonts that drawings ask for. */
import { type DrawingLayer, type FontChoice, isKeyed, type Scene } from '../document/types';
import { allLayers } from '../document/nest';
import { samplerOf } from '../motion/sampler';
import { paramsOf } from './table';

/** Every font that a drawing asks for at any time. */
export const fontsOf = (layer: DrawingLayer): FontChoice[] => {
  const found = new Map<string, FontChoice>();
  for (const item of Object.values(layer.items)) {
    for (const [key, param] of Object.entries(paramsOf(item.kind))) {
      if (param.kind !== 'font') continue;
      const property = item.params[key];
      const values = isKeyed(property) ? property.keys.map((k) => k.value) : [samplerOf(param, property).at(0)];
      for (const value of values) found.set(JSON.stringify(value), value as FontChoice);
    }
  }
  return [...found.values()];
};

export const fontsOfScene = (scene: Scene): FontChoice[] =>
  allLayers(scene).flatMap((layer) => (layer.kind === 'drawing' ? fontsOf(layer) : []));
