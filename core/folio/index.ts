export * from './blocks.ts';
export * from './folio.ts';
export * from './pieces.ts';
export * from './sentences.ts';
export * from './text.ts';
