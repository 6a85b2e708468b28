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
  const tools = [
    {
      icon: Grid3x3,
      label: 'Thirds and safe areas',
      pressed: guides,
      onClick: () => reelDesk.set({ guides: !guides }),
    },
    { icon: Repeat, label: 'Play the shot round and round', onClick: onRound },
    { icon: Maximize, label: 'Full screen', onClick: onFullScreen },
  ];
  return (
    <div className="flex items-center bg-surround pr-2.5">
      <div className="min-w-0 flex-1">
        <Transport duration={duration} rate={rate} />
      </div>
      <span className="mb-1.5 flex gap-1.5">
        <Button
          tone="primary"
          small
          icon={<Clapperboard size={14} />}
          disabled={!onRender || !shots}
          onClick={() => onRender?.()}
        >
          Render reel
        </Button>
        {tools.map(({ icon: Icon, label, ...tool }) => (
          <Button
            key={label}
            tone="surround"
            small
            icon={<Icon size={14} />}
            aria-label={label}
            disabled={!shots}
            {...tool}
          />
        ))}
      </span>
    </div>
  );
});
