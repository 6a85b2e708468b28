export * from './timecode.ts';
