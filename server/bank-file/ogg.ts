import {
  BufferSource,
  BufferTarget,
  EncodedAudioPacketSource,
  EncodedPacketSink,
  Input,
  MP4,
  OGG,
  OggOutputFormat,
  Output,
  WEBM,
} from 'mediabunny';

/**
 * Opus of another container as Ogg Opus (RFC 7845): the packets stay as they are, nothing is encoded again.
 * @returns undefined for what is no Opus, or is in Ogg already
 */
export async function asOgg(bytes: Uint8Array): Promise<Uint8Array | undefined> {
  if (Buffer.from(bytes.subarray(0, 4)).toString('latin1') === 'OggS') return undefined;
  const input = new Input({ source: new BufferSource(bytes), formats: [WEBM, OGG, MP4] });
  const track = await input.getPrimaryAudioTrack().catch(() => null);
  if (track?.codec !== 'opus') return undefined;
  const target = new BufferTarget();
  const output = new Output({ format: new OggOutputFormat(), target });
  const source = new EncodedAudioPacketSource('opus');
  output.addAudioTrack(source);
  await output.start();
  const config = await track.getDecoderConfig();
  for await (const packet of new EncodedPacketSink(track).packets())
    await source.add(packet, config ? { decoderConfig: config } : undefined);
  await output.finalize();
  return new Uint8Array(target.buffer!);
}
