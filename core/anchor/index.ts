export * from './anchor.ts';
