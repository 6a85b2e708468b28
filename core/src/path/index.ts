export * from './edit.ts';
export { STRIDE, type BezierChain } from './bezier.ts';
export { PlanCurve } from './plan-curve.ts';
export { arcLength } from './quadrature.ts';
