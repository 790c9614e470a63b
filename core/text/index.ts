export * from './well-formed.ts';
