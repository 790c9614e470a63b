export * from './contrast.ts';
