export * from './findings.ts';
