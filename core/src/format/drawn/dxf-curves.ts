import type { IEllipseEntity, IPoint, ISplineEntity } from 'dxf-parser';
import { Vector4 } from 'three';
import { NURBSCurve } from 'three/examples/jsm/curves/NURBSCurve.js';

/** Points of a spline between two of its knots, and of an ellipse in a whole turn. */
const A_SPAN = 12;
const A_TURN = 48;

/**
 * A spline of a drawing as points, both ends included: through its fit points where it has no others.
 * @returns null for one with weights, which the parser does not read, or without enough points
 */
export function splinePoints(entity: ISplineEntity): IPoint[] | null {
  const { controlPoints = [], fitPoints = [], knotValues = [], degreeOfSplineCurve: degree, rational } = entity;
  if (rational) return null;
  if (!(degree >= 1) || knotValues.length !== controlPoints.length + degree + 1 || controlPoints.length <= degree)
    return fitPoints.length > 1 ? fitPoints : null;
  const curve = new NURBSCurve(
    degree,
    knotValues,
    controlPoints.map(({ x, y, z }) => new Vector4(x, y, z || 0, 1)),
    degree,
    knotValues.length - 1 - degree,
  );
  return curve.getPoints(A_SPAN * (controlPoints.length - degree));
}

/** An ellipse, or a part of one, as points, both ends included. */
export function ellipsePoints(entity: IEllipseEntity): IPoint[] {
  const { center, majorAxisEndPoint: axis, axisRatio, startAngle = 0, endAngle = 2 * Math.PI } = entity;
  const turn = endAngle > startAngle ? endAngle - startAngle : endAngle - startAngle + 2 * Math.PI;
  const steps = Math.max(2, Math.ceil((A_TURN * turn) / (2 * Math.PI)));
  return Array.from({ length: steps + 1 }, (_, i) => {
    const angle = startAngle + (turn * i) / steps;
    const [along, across] = [Math.cos(angle), axisRatio * Math.sin(angle)];
    return {
      x: center.x + along * axis.x - across * axis.y,
      y: center.y + along * axis.y + across * axis.x,
      z: center.z || 0,
    };
  });
}
