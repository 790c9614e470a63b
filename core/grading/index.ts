export * from './grade.ts';
export * from './hundredths.ts';
export * from './rubric.ts';
