export * from './transcript.ts';
