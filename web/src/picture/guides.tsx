import { cutOut, guideLines, middleArea, SAFE_AREAS, type Guide, type PictureArea } from '@eskovan/core/framing';

/** What is drawn over a picture to compose it by. */
export interface Guides {
  lines: Guide;
  /** The areas that every screen shows. */
  safe: boolean;
  /** Width over height of a picture that is to be cut out of this one. */
  second: number | null;
}

/** Guides over the frame. @param aspect width over height of the frame */
export function GuideLines({ guides: { lines, safe, second }, aspect }: { guides: Guides; aspect: number }) {
  return (
    <svg className="h-full w-full" viewBox="0 0 1 1" preserveAspectRatio="none" data-testid="guides">
      <g stroke="white" fill="none" strokeWidth="1">
        {guideLines(lines, aspect).map(([x1, y1, x2, y2]) => (
          <line
            key={`${x1} ${y1} ${x2} ${y2}`}
            {...{ x1, y1, x2, y2 }}
            strokeOpacity="0.35"
            vectorEffect="non-scaling-stroke"
          />
        ))}
        {safe &&
          Object.values(SAFE_AREAS).map((part) => (
            <Area key={part} area={middleArea(part)} strokeOpacity="0.45" strokeDasharray="5 5" />
          ))}
      </g>
      {second !== null && (
        <g stroke="var(--color-ochre)" fill="none">
          <Area area={cutOut(aspect, second)} strokeWidth="1.5" />
        </g>
      )}
    </svg>
  );
}

function Area({
  area,
  ...look
}: {
  area: PictureArea;
  strokeOpacity?: string;
  strokeDasharray?: string;
  strokeWidth?: string;
}) {
  return <rect {...area} {...look} vectorEffect="non-scaling-stroke" />;
}
