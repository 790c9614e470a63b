export * from './compare.ts';
export * from './sample.ts';
