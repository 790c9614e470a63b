import { isDeepStrictEqual } from 'node:util';
import { annotationTarget, compareAnchors } from '#core/anchor';
import { ANNOTATION_CONTEXT, type Annotation, type AnnotationPage } from '../../contract/annotation.ts';
import type { Remark } from '../../contract/remarks.ts';
import { NO_WORDS, SaidWords } from '../../contract/said.ts';
import { SoundType, type Sound } from '../../contract/sound.ts';
import { asStudent } from '../access/visible.ts';
import type { Queries } from '../db/database.ts';
import { findMedium } from '../media/media.ts';
import { selectRemarks } from '../remarks/queries.ts';
import { selectFolio } from '../submissions/queries.ts';

/** Motivations of the W3C model (section 3.3.5) beside `commenting`, for the kinds that every course begins with. */
const MOTIVATIONS: Record<string, string> = {
  strength: 'assessing',
  question: 'questioning',
  repair: 'editing',
  next: 'assessing',
};

const HASH = 'urn:sha256:';

export const workIri = (submission: string): string => `urn:uuid:${submission}`;
export const soundIri = (sha256: string): string => `${HASH}${sha256}`;
export const sha256OfIri = (iri: string): string | undefined => new RegExp(`^${HASH}([0-9a-f]{64})$`).exec(iri)?.[1];

/** The remarks on a work in reading order, as W3C Web Annotations; undefined where there is no such work. Private notes stay here. */
export async function exportAnnotations(db: Queries, submission: string): Promise<AnnotationPage | undefined> {
  const folio = await selectFolio(db, submission);
  if (!folio) return undefined;
  const compare = compareAnchors(folio);
  const remarks = (await selectRemarks(db, { submission }, asStudent)).sort((a, b) => compare(a.anchor, b.anchor));
  const items: Annotation[] = [];
  for (const remark of remarks)
    items.push({
      id: `urn:uuid:${remark.id}`,
      type: 'Annotation',
      motivation: ['commenting', MOTIVATIONS[remark.kind] ?? 'assessing'],
      creator: { id: `urn:uuid:${remark.author.id}`, type: 'Person', name: remark.author.name },
      created: remark.madeAt,
      body: await bodiesOf(db, remark),
      target: annotationTarget(folio, workIri(submission), remark.anchor),
    });
  return { '@context': ANNOTATION_CONTEXT, id: `${workIri(submission)}#annotations`, type: 'AnnotationPage', items };
}

/** What is said beside a text, a recording and a file. */
const Beside = SaidWords.omit({ text: true });

async function bodiesOf(db: Queries, remark: Remark): Promise<Annotation['body']> {
  const { recording, kind, text, file } = remark;
  const transcript = recording?.transcript;
  const content = Beside.parse(remark);
  const plain = text === '' && isDeepStrictEqual(content, Beside.parse(NO_WORDS));
  return [
    ...(recording ? [await soundBody(db, recording.sound)] : []),
    ...(transcript
      ? [
          {
            type: 'TextualBody' as const,
            purpose: 'describing' as const,
            format: 'text/plain' as const,
            language: transcript.language,
            value: transcript.text,
            words: transcript.words,
            origin: transcript.source,
          },
        ]
      : []),
    ...(plain
      ? []
      : [
          {
            type: 'TextualBody' as const,
            purpose: 'commenting' as const,
            format: 'text/plain' as const,
            value: text,
            content,
          },
        ]),
    ...(file ? [{ id: soundIri(file.sha256), type: 'Dataset' as const, fileName: file.name }] : []),
    { type: 'TextualBody', purpose: 'tagging', value: kind },
  ];
}

async function soundBody(db: Queries, sound: Sound): Promise<Annotation['body'][number]> {
  const medium = (await findMedium(db, Buffer.from(sound.sha256, 'hex')))!;
  return {
    id: soundIri(sound.sha256),
    type: sound.picture ? 'Video' : 'Audio',
    format: SoundType.parse(medium.mediaType),
    seconds: sound.duration,
    peaks: sound.peaks,
    ...(sound.picture && { picture: sound.picture }),
  };
}
