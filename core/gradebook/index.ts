export * from './block.ts';
export * from './entry.ts';
export * from './filter.ts';
export * from './plan.ts';
