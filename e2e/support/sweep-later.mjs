// Sweeps the files of a studio as it would be swept an hour from now, and prints what it found.
// Settings come by the environment, as those of the server.
import { createApp } from '../../server/dist/app.js';
import { readConfig } from '../../server/dist/config.js';
import { FileSweep } from '../../server/dist/file/file-sweep.js';

const app = await createApp(readConfig(process.env), { quiet: true });
console.log(JSON.stringify(await app.get(FileSweep).sweep(Date.now() + 3600_000 + 60_000)));
await app.close();
process.exit(0);
