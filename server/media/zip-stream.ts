import { Zip, ZipDeflate, ZipPassThrough } from 'fflate';

export interface ZipPart {
  name: string;
  bytes: Uint8Array | AsyncIterable<Uint8Array>;
  /** Sounds are packed already. */
  packed: boolean;
}

async function* piecesOf(bytes: ZipPart['bytes']): AsyncGenerator<Uint8Array> {
  if (bytes instanceof Uint8Array) yield bytes;
  else yield* bytes;
}

/** A zip file part by part and piece by piece, so that no more than one of them is in memory. */
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
    for await (const piece of piecesOf(bytes)) {
      entry.push(piece);
      if (broken) throw broken;
      yield* ready.splice(0);
    }
    entry.push(new Uint8Array(), true);
    if (broken) throw broken;
    yield* ready.splice(0);
  }
  zip.end();
  yield* ready.splice(0);
}
