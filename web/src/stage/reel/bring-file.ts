import type { FileRef } from '@eskovan/core/document';
import { uploadFile } from '../../data/api.ts';

/** No side of a picture is kept longer than this, pixels. */
const LONGEST = 4096;

/**
 * Keeps a picture that a person brought, as PNG: whatever this browser can show, drawings too, and nothing but its pixels.
 * @throws Error for what is no picture; ApiError, OfflineError
 */
export async function bringPicture(file: File): Promise<FileRef> {
  const url = URL.createObjectURL(file);
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const [width, height] = [image.naturalWidth || 1024, image.naturalHeight || 1024];
    const scale = Math.min(1, LONGEST / Math.max(width, height));
    const canvas = new OffscreenCanvas(Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale)));
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
    return await uploadFile(await canvas.convertToBlob({ type: 'image/png' }), 'image/png');
  } finally {
    URL.revokeObjectURL(url);
  }
}

/** What sounds are called, by the ends of their names: browsers disagree about them. */
const SOUNDS: Record<string, string> = {
  wav: 'audio/wav',
  mp3: 'audio/mpeg',
  ogg: 'audio/ogg',
  oga: 'audio/ogg',
  opus: 'audio/ogg',
};

/** Keeps a sound. @throws ApiError, OfflineError */
export const bringSound = (file: File): Promise<FileRef> =>
  uploadFile(file, SOUNDS[file.name.split('.').at(-1)?.toLowerCase() ?? ''] ?? file.type);
