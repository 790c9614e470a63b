export * from './isotonic.ts';
export * from './layout.ts';
export * from './key.ts';
