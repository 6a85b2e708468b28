import type { Rate } from '@eskovan/core/document';
import { Clapperboard, Grid3x3, Maximize, Repeat } from 'lucide-react';
import { memo } from 'react';
import { Button } from '../../kit/index.ts';
import { Transport } from '../../picture/transport.tsx';
import { reelDesk, useReelDesk } from './reel-desk.ts';

interface PictureToolsProps {
  /** How long the reel is, seconds. */
  duration: number;
  rate: Rate;
  /** Are there any shots? */
  shots: boolean;
  /** Null until it is known what a film is made from. */
  onRender: (() => void) | null;
  /** Plays a shot round and round, or all of it again. */
  onRound: () => void;
  onFullScreen: () => void;
}

/** What is under the reel's picture: playing it, and what else is done with it. */
export const PictureTools = memo(function PictureTools(props: PictureToolsProps) {
  const { duration, rate, shots, onRender, onRound, onFullScreen } = props;
  const guides = useReelDesk((state) => state.guides);
  return (
    <div className="flex items-center bg-surround pr-2.5 *:last:mb-1.5 [&>button]:mb-1.5">
      <div className="min-w-0 flex-1">
        <Transport duration={duration} rate={rate} />
      </div>
      <Button
        tone="primary"
        small
        className="mr-1.5"
        icon={<Clapperboard size={14} />}
        disabled={!onRender || !shots}
        onClick={() => onRender?.()}
      >
        Render reel
      </Button>
      <Button
        tone="surround"
        small
        className="mr-1.5"
        icon={<Grid3x3 size={14} />}
        aria-label="Thirds and safe areas"
        pressed={guides}
        disabled={!shots}
        onClick={() => reelDesk.set({ guides: !guides })}
      />
      <Button
        tone="surround"
        small
        icon={<Repeat size={14} />}
        aria-label="Play the shot round and round"
        disabled={!shots}
        onClick={onRound}
      />
      <Button
        tone="surround"
        small
        className="ml-1.5"
        icon={<Maximize size={14} />}
        aria-label="Full screen"
        disabled={!shots}
        onClick={onFullScreen}
      />
    </div>
  );
});
