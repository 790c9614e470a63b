declare module 'heic-decode' {
  interface Decoded {
    width: number;
    height: number;
    /** Red, green, blue and opacity of each pixel. */
    data: Uint8ClampedArray;
  }
  interface Undecoded {
    width: number;
    height: number;
    decode(): Promise<Decoded>;
  }
  const decode: {
    (input: { buffer: Uint8Array }): Promise<Decoded>;
    all(input: { buffer: Uint8Array }): Promise<Undecoded[] & { dispose(): void }>;
  };
  export default decode;
}
