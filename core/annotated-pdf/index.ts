export * from './page-space.ts';
export * from './write.ts';
