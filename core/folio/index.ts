export * from './answers.ts';
export * from './blocks.ts';
export * from './folio.ts';
export * from './leaf.ts';
export * from './median.ts';
export { placedTexts, type DrawnText } from './page-text.ts';
export * from './pieces.ts';
export * from './sentences.ts';
export * from './text.ts';
