export * from './in-time.ts';
export * from './invented-take.ts';
export * from './parts.ts';
export * from './split.ts';
export * from './timeline.ts';
export * from './track.ts';
