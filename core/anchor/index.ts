export * from './anchor.ts';
export * from './in-folio.ts';
export * from './locate.ts';
export * from './plain.ts';
export * from './reattach-folio.ts';
export * from './reattach.ts';
export * from './uptake.ts';
export * from './web-annotation.ts';
