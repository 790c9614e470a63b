export * from './invented-take.ts';
export * from './split.ts';
