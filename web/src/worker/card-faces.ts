import latinExt from '@fontsource-variable/instrument-sans/files/instrument-sans-latin-ext-wght-normal.woff2?url';
import latin from '@fontsource-variable/instrument-sans/files/instrument-sans-latin-wght-normal.woff2?url';
import { CARD_FACE } from '@eskovan/render';

/** What cards and captions are set in: a worker has no style sheets. Without it they are set in another face. */
export async function loadCardFaces(): Promise<void> {
  const faces = [
    [latin, 'U+0000-00FF, U+0131, U+0152-0153, U+02BB-02BC, U+02C6, U+02DA, U+02DC, U+2000-206F, U+20AC, U+2122'],
    [latinExt, 'U+0100-02BA, U+1E00-1E9F, U+1EF2-1EFF, U+2113, U+2C60-2C7F, U+A720-A7FF'],
  ] as const;
  const { fonts } = self as unknown as { fonts?: FontFaceSet };
  await Promise.all(
    faces.map(async ([url, unicodeRange]) => {
      const face = new FontFace(CARD_FACE, `url(${url})`, { weight: '400 700', unicodeRange });
      fonts?.add(await face.load());
    }),
  ).catch(() => undefined);
}
