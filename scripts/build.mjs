import { build } from './lib/build.mjs';

await build();
