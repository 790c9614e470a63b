/** OIDs of `pg_type`; https://www.postgresql.org/docs/15/catalog-pg-type.html */
const INT8 = 20;
const BYTEA = 17;
const DATE = 1082;
const TIMESTAMPTZ = 1184;

/** How column values become JavaScript values, alike for both bodies: instants as ISO strings, dates as text, `bytea` as Buffer. */
export const parsers = {
  [INT8]: Number,
  [BYTEA]: (text: string) => Buffer.from(text.slice(2), 'hex'),
  [DATE]: (text: string) => text,
  [TIMESTAMPTZ]: (text: string) => new Date(text).toISOString(),
};

/** PGlite's own way with `bytea` is six times slower. */
export const serializers = {
  [BYTEA]: (bytes: Uint8Array) => `\\x${Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('hex')}`,
};
