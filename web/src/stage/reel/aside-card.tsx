import type { Row } from '@eskovan/core/document';
import { workbench } from '../../desk/workbench.ts';
import { Card, NumberField, Segmented } from '../../kit/index.ts';
import { setShot } from './edit-reel.ts';
import type { OpenReel } from './open-reel.ts';
import { useReelFacts } from './reel-facts.ts';
import { outsideText } from './words.ts';

/** Where a picture of another ratio lies in the one that the move was made for. @param flatter it goes from side to side */
export function AsideCard({ open, row, flatter }: { open: OpenReel; row: Row<'shot'>; flatter: boolean }) {
  const { aside } = row.body;
  const outside = useReelFacts((state) => state.outside).filter(({ shot }) => shot === row.id);
  return (
    <Card title="Cut-out" note={flatter ? 'the whole width' : aside === undefined ? 'follows its subject' : 'by hand'}>
      {outside.map(({ from, to }) => (
        <p key={from} role="status" className="mb-1">
          <button
            type="button"
            className="min-h-6 text-left text-madder hover:underline"
            onClick={() => workbench.set({ time: from, playing: false })}
          >
            {outsideText(to - from)}
          </button>
        </p>
      ))}
      {!flatter && (
        <Segmented
          label="Where the cut-out lies"
          value={aside === undefined ? 'follows' : 'hand'}
          options={[
            { value: 'follows', label: 'Follows' },
            { value: 'hand', label: 'By hand' },
          ]}
          onChange={(value) =>
            setShot(open, row, 'Cut-out', ({ aside: _, ...body }) =>
              value === 'hand' ? { ...body, aside: aside ?? 0 } : body,
            )
          }
        />
      )}
      {!flatter && aside !== undefined && (
        <NumberField
          label="Aside"
          unit="%"
          value={aside * 100}
          digits={0}
          step={5}
          min={-100}
          max={100}
          onChange={(value) => setShot(open, row, 'Cut-out', (body) => ({ ...body, aside: value / 100 }))}
        />
      )}
    </Card>
  );
}
