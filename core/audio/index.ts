export * from './clock.ts';
export * from './level.ts';
export * from './peaks.ts';
export * from './edit.ts';
