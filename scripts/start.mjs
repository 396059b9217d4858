// npm start: install, build, serve.
import { build, install, run } from './steps.mjs';

install();
await build();
process.exit(await run('dist/server.mjs', process.argv.slice(2), { KITE_FOLLOW_PARENT: '1' }));
