import { FIRST_HOLD } from '@eskovan/core/document';
import { useState } from 'react';
import { toast } from 'sonner';
import { cx } from '../../kit/index.ts';
import { saidOf } from '../../worker/said.ts';
import { bringClip, bringPicture, isClip } from './bring-file.ts';
import type { NewShot } from './edit-reel.ts';

/** A picture from a file, held for a few seconds, or a clip, as long as it is. */
export function ShownFile({ disabled, onShot }: { disabled: boolean; onShot: (shot: NewShot) => void }) {
  const [busy, setBusy] = useState(false);
  const bring = async (file: File | undefined) => {
    if (!file) return;
    setBusy(true);
    try {
      const name = file.name.replace(/\.[^.]+$/, '').slice(0, 120) || 'Picture';
      const fileName = file.name.slice(0, 255);
      if (isClip(file)) {
        const { kept, duration } = await bringClip(file);
        onShot({ name, use: { kind: 'clip', file: kept, fileName, duration, from: 0 } });
      } else onShot({ name, seconds: FIRST_HOLD, use: { kind: 'picture', file: await bringPicture(file), fileName } });
    } catch (error) {
      toast.error(
        saidOf(
          error,
          isClip(file)
            ? `${file.name} could not be read as a clip. An MP4, MOV or WebM file would do.`
            : `${file.name} could not be read as a picture. A PNG, JPEG, WebP or GIF would do.`,
        ),
      );
    } finally {
      setBusy(false);
    }
  };
  return (
    <label
      className={cx(
        'inline-flex h-8 w-full cursor-pointer items-center justify-center rounded-lg border border-rule bg-raised font-medium',
        (disabled || busy) && 'opacity-50',
      )}
    >
      {busy ? 'Reading…' : 'A picture or clip from a file'}
      <input
        type="file"
        accept="image/*,video/*,.mov,.m4v"
        aria-label="Picture or clip file"
        className="sr-only"
        disabled={disabled || busy}
        onChange={(event) => {
          void bring(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
    </label>
  );
}
