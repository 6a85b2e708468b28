import { Sun } from 'lucide-react';
import { fileUrl } from '../../data/api.ts';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { Card, Line, Select } from '../../kit/index.ts';
import { useLight } from '../../site/use-site.ts';

/** What a project's own light is called where one is chosen. */
export const OWN_LIGHT = 'The project’s light';
const OWN = 'own';

interface LightCardProps {
  /** The chosen light; null or absent: the project's own. */
  light: string | null | undefined;
  onLight: (light: string | null) => void;
}

/** Which light a view or move is seen in. */
export function LightCard({ light, onLight }: LightCardProps) {
  const document = useProject();
  const lights = liveRows(document.light);
  const chosen = lights.find(({ id }) => id === light);
  const { whole } = useLight(light);
  const picture = chosen ? chosen.body.picture : document.project.body.picture;
  return (
    <Card title="Light">
      <Line label="Seen in">
        <Select
          label="Light"
          value={chosen?.id ?? OWN}
          options={[{ value: OWN, label: OWN_LIGHT }, ...lights.map(({ id, name }) => ({ value: id, label: name }))]}
          onChange={(value) => onLight(value === OWN ? null : value)}
        />
      </Line>
      {picture ? (
        <img
          src={fileUrl(picture.file.sha256)}
          alt=""
          className="mt-1.5 aspect-video w-full rounded-lg bg-surround object-cover"
        />
      ) : (
        lights.length === 0 && (
          <p className="mt-1 flex gap-1.5 text-sm text-ink-faint">
            <Sun size={14} aria-hidden className="mt-0.5 shrink-0" />
            Other lights are made in the Model stage: a morning, a dusk with its lamps.
          </p>
        )
      )}
      {!whole && <p className="mt-1.5 text-sm text-ink-soft">This light is still being gathered.</p>}
    </Card>
  );
}
