import { cuesOf, writeVtt } from '#core/transcript';
import { ANY_WORK, BANK_CONTEXT, BANK_FILE_VERSION, type BankAnnotation } from '../../contract/bank-file.ts';
import type { BankedRemark } from '../../contract/bank.ts';
import type { z } from 'zod';
import { SoundType } from '../../contract/sound.ts';
import { selectBanked, selectOwnIds } from '../bank/queries.ts';
import type { Queries } from '../db/database.ts';
import { findMedium, readWholeMedium } from '../media/media.ts';
import { BagWriter, sha256, TOP } from './bag.ts';
import { asOgg } from './ogg.ts';
import type { ZipPart } from '../media/zip-stream.ts';

const PIECE = 50;
const PAGE = 'data/bank.jsonld';

/** A person's own bank, part by part, in the order in which it goes into a zip file. */
export async function* exportBank(db: Queries, person: string): AsyncGenerator<ZipPart> {
  const bag = new BagWriter();
  const items: string[] = [];
  const ids = await selectOwnIds(db, person);
  for (let at = 0; at < ids.length; at += PIECE)
    for (const remark of await selectBanked(db, person, ids.slice(at, at + PIECE))) {
      const sound = remark.recording && (await soundOf(db, remark.recording.sound.sha256));
      if (sound && !bag.has(sound.file)) yield part(bag, sound.file, sound.bytes, true);
      const captions = captionsOf(remark);
      if (captions) yield part(bag, captions.file, captions.bytes, false);
      items.push(JSON.stringify(annotationOf(remark, sound ?? undefined, captions?.file)));
    }
  yield part(bag, PAGE, Buffer.from(pageOf(person, items)), false);
  for (const [name, bytes] of bag.tagFiles()) yield { name: TOP + name, bytes, packed: false };
}

function part(bag: BagWriter, name: string, bytes: Uint8Array, packed: boolean): ZipPart {
  bag.add(name, bytes);
  return { name: TOP + name, bytes, packed };
}

/** One annotation a line, so that people can compare two of these files. */
const pageOf = (person: string, items: readonly string[]): string =>
  `{"@context":${JSON.stringify(BANK_CONTEXT)},"id":"urn:uuid:${person}#bank","type":"AnnotationPage","version":${BANK_FILE_VERSION},"items":[\n${items.join(',\n')}\n]}\n`;

interface SoundFile {
  file: string;
  bytes: Uint8Array;
  format: z.infer<typeof SoundType>;
  sha256: string;
}

async function soundOf(db: Queries, name: string): Promise<SoundFile> {
  const hash = Buffer.from(name, 'hex');
  const medium = (await findMedium(db, hash))!;
  const kept = await readWholeMedium(db, hash, medium);
  const ogg = await asOgg(kept).catch(() => undefined);
  const bytes = ogg ?? kept;
  const format = ogg ? 'audio/ogg' : SoundType.parse(medium.mediaType);
  const own = sha256(bytes);
  return { bytes, format, sha256: own, file: `data/audio/${own}.${format.split('/')[1]}` };
}

function captionsOf({ id, recording }: BankedRemark): { file: string; bytes: Uint8Array } | undefined {
  const transcript = recording?.transcript;
  if (!transcript || transcript.words.length === 0) return undefined;
  const text = writeVtt(cuesOf(transcript.words), transcript.language);
  return { file: `data/captions/${id}.${transcript.language}.vtt`, bytes: Buffer.from(text) };
}

function annotationOf(
  remark: BankedRemark,
  sound: SoundFile | undefined,
  captions: string | undefined,
): BankAnnotation {
  const { id, madeAt, name, description, criterion, kind, gap, recording, language } = remark;
  const transcript = recording?.transcript;
  const body: BankAnnotation['body'] = [];
  if (sound && recording)
    body.push({
      ...{ id: `urn:sha256:${sound.sha256}`, type: 'Audio', format: sound.format, file: sound.file },
      ...{ sha256: sound.sha256, seconds: recording.sound.duration, peaks: recording.sound.peaks },
    });
  if (transcript)
    body.push({
      ...{ type: 'TextualBody', purpose: 'describing', language: transcript.language },
      ...{ value: transcript.text, words: transcript.words, origin: transcript.source },
    });
  for (const other of recording?.translations ?? [])
    body.push({
      ...{ type: 'TextualBody', purpose: 'describing' },
      ...{ language: other.language, value: other.text, origin: other.source },
    });
  if (captions) body.push({ id: captions, type: 'Text', format: 'text/vtt', language: transcript!.language });
  if (remark.text) body.push({ type: 'TextualBody', purpose: 'commenting', language, value: remark.text });
  if (remark.suggestion !== null) body.push({ type: 'TextualBody', purpose: 'editing', value: remark.suggestion });
  if (remark.reaction !== null) body.push({ type: 'TextualBody', purpose: 'replying', value: remark.reaction });
  if (remark.link !== null) body.push({ type: 'SpecificResource', purpose: 'linking', source: remark.link });
  for (const tag of remark.tags) body.push({ type: 'TextualBody', purpose: 'tagging', value: tag });
  return {
    ...{ id: `urn:uuid:${id}`, type: 'Annotation', motivation: 'commenting', created: madeAt },
    ...{ headline: name, abstract: description, about: { name: criterion, termCode: kind } },
    ...(gap !== null && { gap }),
    ...{ body, target: ANY_WORK },
  };
}
