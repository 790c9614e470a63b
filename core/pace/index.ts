export * from './keystroke-level.ts';
export * from './pace.ts';
