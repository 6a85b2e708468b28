export * from './follow.ts';
export * from './pick.ts';
export * from './site-action.ts';
export * from './site-motion.ts';
