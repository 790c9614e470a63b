export * from './plan.ts';
export * from './read.ts';
export * from './write.ts';
