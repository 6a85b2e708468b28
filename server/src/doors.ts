import { createServer, type RequestListener, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { INestApplication } from '@nestjs/common';
import type { Express } from 'express';
import { enterBy, type Door } from './common/door.ts';
import { CONFIG, type Config } from './config.ts';

/** Headers have to come in this time, milliseconds; bodies may take theirs as long as something comes. */
const HEADERS_MS = 30_000;
/**
 * A connection that waits for its next request, milliseconds: longer than people pause, so that hardly a request meets one
 * that is just being closed.
 */
const WAITING_MS = 75_000;
/** A connection on which nothing moves, milliseconds. */
const SILENT_MS = 120_000;

export interface Doors {
  studio: AddressInfo;
  review: AddressInfo;
  close(): Promise<void>;
}

/** Opens the studio's port, on loopback, and the review's. Both lead to one application that knows which it was. */
export async function openDoors(app: INestApplication): Promise<Doors> {
  const config = app.get<Config>(CONFIG);
  const listener = app.getHttpAdapter().getInstance() as Express & RequestListener;
  const studio = door('studio', listener);
  const review = door('review', listener);
  try {
    await listen(studio, config.port, '127.0.0.1');
    await listen(review, config.reviewPort, config.reviewHost);
  } catch (error) {
    studio.close();
    throw error;
  }
  return {
    studio: studio.address() as AddressInfo,
    review: review.address() as AddressInfo,
    close: async () => {
      await Promise.all([studio, review].map(close));
    },
  };
}

function door(which: Door, listener: RequestListener): Server {
  const server = createServer((request, response) => {
    enterBy(request, which);
    listener(request, response);
  });
  // A film of 2 GB may take hours; who sends nothing is cut off.
  server.requestTimeout = 0;
  server.headersTimeout = HEADERS_MS;
  server.keepAliveTimeout = WAITING_MS;
  server.setTimeout(SILENT_MS);
  return server;
}

function listen(server: Server, port: number, host: string): Promise<void> {
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, () => {
      server.off('error', reject);
      resolve();
    });
  });
}

function close(server: Server): Promise<void> {
  return new Promise((resolve) => {
    server.close(() => resolve());
    server.closeIdleConnections();
    // Streams of events end with the application; what is left is nobody's.
    setTimeout(() => server.closeAllConnections(), 1000).unref();
  });
}
