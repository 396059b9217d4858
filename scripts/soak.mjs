// npm run soak: builds, then tries at length what docs/reliability.md promises.
import { build, install, run } from './steps.mjs';

install();
await build();
process.exit(await run('dist/soak.mjs', process.argv.slice(2)));
