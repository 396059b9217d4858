import { RENDERS } from '@kite/api/renders';
import { ask } from '../../api/client';

/** Says that a render is about to be asked for. Where the server is away nothing is lost by it. */
export const prepareRender = (): void => {
  ask(RENDERS.prepare).catch(() => undefined);
};
