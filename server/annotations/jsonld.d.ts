declare module 'jsonld' {
  interface Options {
    documentLoader: (url: string) => Promise<{ contextUrl: undefined; documentUrl: string; document: object }>;
  }
  const jsonld: {
    expand(document: object, options: Options): Promise<object[]>;
    compact(document: object, context: unknown, options: Options): Promise<Record<string, unknown>>;
  };
  export default jsonld;
}
