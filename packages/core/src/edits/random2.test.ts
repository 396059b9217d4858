import { runs } from '../test/randomWalk';

runs(10, 10);
