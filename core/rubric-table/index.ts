export * from './rubric-table.ts';
export * from './starters.ts';
