export * from './grade.ts';
export * from './hundredths.ts';
export * from './rubric.ts';
export * from './rubric-table.ts';
export * from './starters.ts';
