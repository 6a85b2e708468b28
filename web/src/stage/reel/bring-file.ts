import type { FileRef } from '@eskovan/core/document';
import { uploadFile } from '../../data/api.ts';
import { SaidError } from '../../worker/said.ts';
import { readClip } from './clip-reader.ts';

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

/** What films are called, by the ends of their names. */
const CLIPS: Record<string, string> = {
  mp4: 'video/mp4',
  m4v: 'video/mp4',
  mov: 'video/quicktime',
  webm: 'video/webm',
};
/** Larger ones are not brought in, bytes. */
const LARGEST_CLIP = 1024 ** 3;

const endOf = ({ name }: File): string => name.split('.').at(-1)?.toLowerCase() ?? '';

/** Is a file meant as moving pictures? What browsers call it, and how its name ends, may differ. */
export const isClip = (file: File): boolean => file.type.startsWith('video/') || endOf(file) in CLIPS;

/**
 * Keeps moving pictures, once it is certain that they can be shown.
 * @returns the file, and how long it is, seconds
 * @throws ClipError, SaidError, ApiError, OfflineError
 */
export async function bringClip(file: File): Promise<{ kept: FileRef; duration: number }> {
  if (file.size > LARGEST_CLIP)
    throw new SaidError(`${file.name} is larger than ${LARGEST_CLIP / 1024 ** 2} MB. Bring in a shorter piece of it.`);
  const duration = await readClip((remote) => remote.durationOf(file));
  return { kept: await uploadFile(file, CLIPS[endOf(file)] ?? file.type), duration };
}

/** Keeps a sound. @throws ApiError, OfflineError */
export const bringSound = (file: File): Promise<FileRef> => uploadFile(file, SOUNDS[endOf(file)] ?? file.type);
