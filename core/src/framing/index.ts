export * from './drawn.ts';
export * from './guides.ts';
export * from './horizon.ts';
export * from './seen-camera.ts';
export * from './subject.ts';
export * from './upright.ts';
