import { Logger } from '@nestjs/common';
import { createApp } from './app.ts';
import { readConfig } from './config.ts';
import { FileStore } from './file/file-store.ts';

const config = readConfig(process.env);
const app = await createApp(config);
// Loopback only, until there are accounts.
await app.listen(config.port, '127.0.0.1');
new Logger('start').log({ message: 'listening', address: await app.getUrl() });
await app.get(FileStore).sweep();
