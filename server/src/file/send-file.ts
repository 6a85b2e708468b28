import type { Response } from 'express';
import { notFound } from '../common/problem.ts';
import type { FileStore } from './file-store.ts';

/** Types a browser may show in place; anything else is a download. */
const SHOWN = new Set(['image/png', 'image/jpeg', 'image/webp', 'video/mp4']);

/**
 * Sends a kept file, whole or in ranges (films are seeked). Its name is its content: it may be cached for ever; that
 * it is not there may change.
 */
export async function sendFile(
  files: FileStore,
  sha256: string,
  mediaType: string | null,
  response: Response,
): Promise<void> {
  const file = await files.find(sha256);
  if (!file) throw notFound('file');
  const type = mediaType ?? file.mediaType;
  await new Promise<void>((resolve, reject) => {
    const headers = {
      'Content-Type': type,
      'Cache-Control': 'private, max-age=31536000, immutable',
      ...(SHOWN.has(type) ? {} : { 'Content-Disposition': 'attachment' }),
    };
    response.sendFile(files.pathOf(sha256), { cacheControl: false, dotfiles: 'allow', headers }, (error) => {
      // A client that leaves in the middle is no error of ours.
      if (error && !response.headersSent) reject(isRange(error) ? error : notFound('file'));
      else resolve();
    });
  });
}

const isRange = (error: Error) => (error as { status?: number }).status === 416;
