import type { Response } from 'express';
import { notFound } from '../common/problem.ts';
import type { FileStore } from './file-store.ts';

/** Types a browser may show in place; anything else is a download. */
const SHOWN = new Set(['image/png', 'image/jpeg', 'image/webp', 'video/mp4']);

/** Sends a kept file, whole or in ranges (films are seeked). Its name is its content: it may be cached for ever. */
export async function sendFile(files: FileStore, sha256: string, response: Response): Promise<void> {
  const file = await files.find(sha256);
  if (!file) throw notFound('file');
  response.setHeader('Content-Type', file.mediaType);
  response.setHeader('Cache-Control', 'private, max-age=31536000, immutable');
  if (!SHOWN.has(file.mediaType)) response.setHeader('Content-Disposition', 'attachment');
  await new Promise<void>((resolve, reject) => {
    response.sendFile(files.pathOf(sha256), { cacheControl: false, dotfiles: 'allow' }, (error) => {
      // A client that leaves in the middle is no error of ours.
      if (error && !response.headersSent) reject(error);
      else resolve();
    });
  });
}
