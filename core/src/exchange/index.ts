export * from './bcf.ts';
export * from './bcf-read.ts';
export * from './cameras-glb.ts';
export * from './poses-csv.ts';
export * from './sent-view.ts';
export * from './world.ts';
