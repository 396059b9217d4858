// npm run build: install, build.
import { build, install } from './steps.mjs';

install();
await build();
