export * from './alike.ts';
export * from './bm25.ts';
export * from './find.ts';
export * from './passage.ts';
export * from './suggest.ts';
export * from './terms.ts';
