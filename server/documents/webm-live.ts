/*
 * WebM as browsers write it while they record (https://www.w3.org/TR/mediastream-recording/): segment and clusters do not say how
 * large they are, and nothing says how long it is. Elements by RFC 9559 (Matroska), sizes by RFC 8794 (EBML).
 */
const CLUSTER = 0x1f43b675;
const TIMESTAMP = 0xe7;
const SIMPLE_BLOCK = 0xa3;

interface Element {
  id: number;
  /** Where its content begins and ends; without an end where it does not say. */
  from: number;
  to: number | undefined;
}

/** All before the first cluster: what tells what is in it. */
export function headOfWebm(bytes: Uint8Array): Uint8Array {
  const at = clustersIn(bytes).next().value;
  return at === undefined ? bytes : bytes.subarray(0, at);
}

/** Seconds until the beginning of the last block, in the default timestamp scale of a millisecond; undefined where there is none. */
export function lengthOfWebm(bytes: Uint8Array): number | undefined {
  let last: number | undefined;
  for (const at of clustersIn(bytes)) last = at;
  if (last === undefined) return undefined;
  let cluster = 0;
  let block = 0;
  for (let at = elementAt(bytes, last)!.from; at < bytes.length;) {
    const element = elementAt(bytes, at);
    if (element?.to === undefined || element.to > bytes.length) break;
    if (element.id === TIMESTAMP) cluster = numberIn(bytes, element.from, element.to);
    // Behind the number of the track, in one byte, stands the time in two.
    if (element.id === SIMPLE_BLOCK) block = Math.max(block, numberIn(bytes, element.from + 1, element.from + 3));
    at = element.to;
  }
  return (cluster + block) / 1000;
}

/** Where clusters begin: the four bytes of their name, with a timestamp as the first thing in them. */
function* clustersIn(bytes: Uint8Array): Generator<number> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (
    let at = bytes.indexOf(CLUSTER >>> 24);
    at >= 0 && at + 4 < bytes.length;
    at = bytes.indexOf(CLUSTER >>> 24, at + 1)
  ) {
    if (view.getUint32(at) !== CLUSTER) continue;
    const content = elementAt(bytes, at)?.from;
    if (content !== undefined && elementAt(bytes, content)?.id === TIMESTAMP) yield at;
  }
}

const numberIn = (bytes: Uint8Array, from: number, to: number): number => {
  let value = 0;
  for (let at = from; at < to; at++) value = value * 256 + bytes[at]!;
  return value;
};

/** The zeros before the first 1 of a byte say how many bytes follow. */
const widthAt = (bytes: Uint8Array, at: number): number => Math.clz32(bytes[at] ?? 0) - 23;

function elementAt(bytes: Uint8Array, at: number): Element | undefined {
  const idWidth = widthAt(bytes, at);
  const sizeAt = at + idWidth;
  const sizeWidth = widthAt(bytes, sizeAt);
  if (idWidth > 4 || sizeWidth > 8 || sizeAt + sizeWidth > bytes.length) return undefined;
  const from = sizeAt + sizeWidth;
  const size = numberIn(bytes, sizeAt, from) - 2 ** (7 * sizeWidth);
  const unknown = size === 2 ** (7 * sizeWidth) - 1;
  return { id: numberIn(bytes, at, sizeAt), from, to: unknown ? undefined : from + size };
}
