import type { Pose, Vec3 } from '@eskovan/core/document';
import { anglesOf, orientationOf, toDegrees, toRadians, type Angles } from '@eskovan/core/geometry';
import { ClipboardPaste, Copy } from 'lucide-react';
import { toast } from 'sonner';
import { Button, Card, Line, NumberField, Select } from '../../kit/index.ts';
import { heightOf, personOf, PERSON_OPTIONS } from '../shared/people.ts';
import { poseText, readPose } from './pose-text.ts';

interface PoseCardProps {
  pose: Pose;
  /** The eye of this instant: what is typed fast comes sooner than the card is drawn again. */
  now: () => Pose;
  /** Where north is: angle from the plan's −Z towards +X, radians. */
  north: number;
  /** Height of the floor under the eye, metres; null where there is none. */
  floor: number | null;
  onPose: (pose: Pose) => void;
  /** Whose eyes are to be stood with from now on: their height, metres. */
  onEyes: (height: number) => void;
}

const AXES = ['Place x', 'Height', 'Place z'] as const;
const STEEPEST = 89.9;

/** Where the eye is and where it looks, in numbers that can be typed. */
export function PoseCard({ pose, now, north, floor, onPose, onEyes }: PoseCardProps) {
  const { pan, tilt, roll } = anglesOf(pose.orientation);
  // Clockwise from north, as on a compass.
  const bearing = (toDegrees(-pan - north) + 720) % 360;
  const moved = (k: 0 | 1 | 2, value: number) => {
    const { position, orientation } = now();
    onPose({ position: position.map((was, axis) => (axis === k ? value : was)) as Vec3, orientation });
  };
  const turned = (change: Partial<Angles>) => {
    const { position, orientation } = now();
    onPose({ position, orientation: orientationOf({ ...anglesOf(orientation), ...change }) });
  };
  const angle = (label: string, value: number, most: number, set: (radians: number) => void) => (
    <NumberField
      label={label}
      unit="°"
      digits={1}
      step={0.5}
      value={value}
      min={-most}
      max={most}
      onChange={(degrees) => set(toRadians(degrees))}
    />
  );
  const paste = async () => {
    const text = await navigator.clipboard.readText().catch(() => null);
    const read = text === null ? null : readPose(text);
    if (read) onPose(read);
    else toast.error('There is no pose in the clipboard. Copy one with “Copy” in this card.');
  };
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(poseText(now()));
      toast('Pose copied');
    } catch {
      toast.error('The browser does not let this page write to the clipboard.');
    }
  };
  return (
    <Card
      title="Pose"
      note={
        <span className="flex gap-1">
          <Button small tone="quiet" icon={<Copy size={13} />} onClick={() => void copy()}>
            Copy
          </Button>
          <Button small tone="quiet" icon={<ClipboardPaste size={13} />} onClick={() => void paste()}>
            Paste
          </Button>
        </span>
      }
    >
      {AXES.map((label, k) => (
        <NumberField
          key={label}
          label={label}
          unit="m"
          measure="length"
          step={0.1}
          value={pose.position[k]!}
          onChange={(value) => moved(k as 0 | 1 | 2, value)}
        />
      ))}
      {floor !== null && (
        <>
          <Line label="Eyes of">
            <Select
              label="Eyes of"
              value={personOf(pose.position[1] - floor)}
              options={PERSON_OPTIONS}
              onChange={(person) => {
                const height = heightOf(person);
                if (height === null) return;
                onEyes(height);
                moved(1, floor + height);
              }}
            />
          </Line>
          <NumberField
            label="Above the floor"
            unit="m"
            measure="length"
            step={0.05}
            value={pose.position[1] - floor}
            onChange={(height) => moved(1, floor + height)}
          />
        </>
      )}
      {angle('Bearing', bearing, 360, (radians) => turned({ pan: -radians - north }))}
      {angle('Tilt', toDegrees(tilt), STEEPEST, (radians) => turned({ tilt: radians }))}
      {angle('Roll', toDegrees(roll), 180, (radians) => turned({ roll: radians }))}
    </Card>
  );
}
