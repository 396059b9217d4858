import { reversed } from '../../geometry/outline';
import { shapeStep } from '../shapeStep';

/** Outlines run the other way round: a trim below then starts at their ends. */
export const reverse = shapeStep({
  kind: 'reverse',
  label: 'Reverse',
  params: {},
  summary: () => 'The other way round',
  each: (outlines) => outlines.map(reversed),
});
