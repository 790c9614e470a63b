export * from './own-work.ts';
export * from './permission.ts';
export * from './queue.ts';
export * from './state.ts';
export * from './notice.ts';
export * from './local-time.ts';
