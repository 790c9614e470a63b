export * from './hundredths.ts';
export * from './rubric.ts';
export * from './sheet.ts';
export * from './exact.ts';
export { CaseError, resultOf, type Case, type Flag, type LateRule, type Part, type Result } from './result.ts';
export * from './course.ts';
export * from './rank-trend.ts';
export * from './statistics.ts';
export * from './agreement.ts';
