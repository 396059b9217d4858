// npm run bench: measures; see docs/performance.md.
import { build, install, run } from './steps.mjs';

install();
await build();
process.exit(await run('dist/bench.mjs', process.argv.slice(2)));
