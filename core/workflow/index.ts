export * from './permission.ts';
export * from './state.ts';
export * from './queue.ts';
