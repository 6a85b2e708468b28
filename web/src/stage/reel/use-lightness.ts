import { meanLightness } from '@eskovan/core/colour';
import { useEffect, useState } from 'react';

/** A picture is looked at so small: its mean is the same. */
const LOOKED = { width: 32, height: 18 };

/** How light pictures are, 0…100, by their addresses; null for what is not there yet. */
export function useLightness(urls: readonly (string | null)[]): readonly (number | null)[] {
  const [known, setKnown] = useState<Readonly<Record<string, number>>>({});
  const asked = urls.join('\n');
  useEffect(() => {
    let over = false;
    for (const url of asked.split('\n').filter(Boolean)) {
      void lightnessOf(url).then((value) => {
        if (!over && value !== null) setKnown((now) => (now[url] === value ? now : { ...now, [url]: value }));
      });
    }
    return () => {
      over = true;
    };
  }, [asked]);
  return urls.map((url) => (url === null ? null : (known[url] ?? null)));
}

async function lightnessOf(url: string): Promise<number | null> {
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const { width, height } = LOOKED;
    const pen = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
    pen.drawImage(image, 0, 0, width, height);
    return meanLightness(pen.getImageData(0, 0, width, height).data);
  } catch {
    return null;
  }
}
