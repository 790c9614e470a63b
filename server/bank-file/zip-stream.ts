import { Zip, ZipDeflate, ZipPassThrough } from 'fflate';

export interface ZipPart {
  name: string;
  bytes: Uint8Array;
  /** Sounds are packed already. */
  packed: boolean;
}

/** A zip file part by part, so that no more than one of them is in memory. */
export async function* zipped(parts: AsyncIterable<ZipPart>): AsyncGenerator<Uint8Array> {
  const ready: Uint8Array[] = [];
  let broken: Error | undefined;
  const zip = new Zip((error, chunk) => {
    if (error) broken = error;
    else ready.push(chunk);
  });
  for await (const { name, bytes, packed } of parts) {
    const entry = packed ? new ZipPassThrough(name) : new ZipDeflate(name, { level: 6 });
    zip.add(entry);
    entry.push(bytes, true);
    if (broken) throw broken;
    yield* ready.splice(0);
  }
  zip.end();
  yield* ready.splice(0);
}
