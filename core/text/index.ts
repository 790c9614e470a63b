export * from './ends.ts';
export * from './file-name.ts';
export * from './well-formed.ts';
