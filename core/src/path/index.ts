export * from './edit.ts';
export * from './whole.ts';
export { STRIDE, type BezierChain } from './bezier.ts';
export { PlanCurve } from './plan-curve.ts';
export { LONGEST_PATH, pathFault, type PathFault } from './limits.ts';
export { arcLength } from './quadrature.ts';
export * from './corner.ts';
export * from './from-points.ts';
export * from './main-points.ts';
