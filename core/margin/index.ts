export * from './isotonic.ts';
export * from './layout.ts';
