/** Shown about what is focused in the plan: what has it is a `plan-hand`. */
export function FocusRing({ x, z, scale }: { x: number; z: number; scale: number }) {
  return (
    <circle
      className="plan-focus"
      cx={x}
      cy={z}
      r={11 / scale}
      fill="none"
      stroke="var(--lagoon)"
      strokeWidth={2}
      vectorEffect="non-scaling-stroke"
    />
  );
}
