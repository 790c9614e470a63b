export * from './transcript.ts';
export * from './retimed.ts';
