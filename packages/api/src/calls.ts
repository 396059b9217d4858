/** Everything that the server can be asked, by what it is about. */
import { ASSETS, SIZES } from './library';
import { HISTORY } from './history';
import { LIVE } from './live';
import { PROJECTS } from './projects';
import { HEALTH, RENDERS } from './renders';
import { STARTERS } from './starters';

export const CALLS = {
  Projects: PROJECTS,
  History: HISTORY,
  'Open projects': LIVE,
  Starters: STARTERS,
  Renders: RENDERS,
  Files: ASSETS,
  Sizes: SIZES,
  Server: { health: HEALTH },
} as const;
