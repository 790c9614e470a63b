export * from './permission.ts';
export * from './state.ts';
