// npm run kite -- ...: the engine without a server.
import { build, install, run } from './steps.mjs';

install();
await build();
// npm runs scripts in the checkout; paths on the command line are meant from where it was called.
if (process.env.INIT_CWD) process.chdir(process.env.INIT_CWD);
process.exit(await run(new URL('../dist/kite.mjs', import.meta.url).pathname, process.argv.slice(2)));
