export * from './cut.ts';
export * from './letters.ts';
export * from './mark.ts';
export * from './numbered.ts';
export * from './stroke-mark.ts';
export * from './words.ts';
