import { runs } from '../test/randomWalk';

// 10,000 sequences in all: see random2.test.ts.
runs(0, 10);
