export * from './lines.ts';
export * from './outline.ts';
export * from './pack.ts';
export * from './stroke.ts';
export * from './surface.ts';
export * from './thin.ts';
export * from './touch.ts';
export * from './words.ts';
