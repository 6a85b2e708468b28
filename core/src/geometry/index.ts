export * from './angles.ts';
export * from './bounds.ts';
export * from './cubic.ts';
export * from './orientation.ts';
export * from './triangles.ts';
export * from './pick.ts';
export * from './same-place.ts';
export * from './smooth.ts';
