import { Logger } from '@nestjs/common';
import { createApp } from './app.ts';
import { readConfig } from './config.ts';
import { openDoors } from './doors.ts';

const app = await createApp(readConfig(process.env));
const doors = await openDoors(app);
new Logger('start').log({ message: 'listening', studio: doors.studio.port, review: doors.review.port });

let stopping = false;
const stop = async () => {
  if (stopping) return;
  stopping = true;
  const closed = doors.close();
  await app.close();
  await closed;
  process.exit(0);
};
process.once('SIGINT', () => void stop());
process.once('SIGTERM', () => void stop());
