import { anchorOfTarget, type Anchor } from '#core/anchor';
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import type { Annotation, AnnotationPage } from '../../contract/annotation.ts';
import { Id } from '../../contract/basics.ts';
import { select, type Database, type Queries } from '../db/database.ts';
import { findMedium, keepMedium } from '../media/media.ts';
import { soundType } from '../media/sound-type.ts';
import { NO_WORDS, type SaidWords } from '../../contract/said.ts';
import { Transcript } from '../../contract/transcripts.ts';
import { selectSpokenLanguage } from '../languages/queries.ts';
import { insertRecording } from '../recordings/queries.ts';
import { putTranscript } from '../transcripts/queries.ts';
import { queueJob } from '../speech/jobs.ts';
import { isEmpty } from '../remarks/make.ts';
import { insertRemark, selectRemark, selectRemarkPlace, type RemarkToInsert } from '../remarks/queries.ts';
import { asTeacher } from '../access/visible.ts';
import { holdForChange } from '../access/work-state.ts';
import { selectFolio } from '../submissions/queries.ts';
import { sha256OfIri, workIri } from './export.ts';

export class AnnotationRefused extends Error {}

export interface Imported {
  made: number;
  /** Were there already. */
  known: number;
}

/**
 * Reads annotations back as remarks on a work that is not returned, all or none.
 * @param bytesOf finds a recording that this school does not have yet, by its SHA-256
 * @throws AnnotationRefused with a sentence that names the annotation
 */
export async function importAnnotations(
  db: Database,
  submission: string,
  page: AnnotationPage,
  bytesOf: (sha256: string) => Promise<Buffer | undefined>,
): Promise<Imported> {
  const folio = await selectFolio(db, submission);
  if (!folio) throw new AnnotationRefused(`There is no work ${submission}.`);
  const teachers = await teachersOf(db, submission);
  const source = sourceOf(page, submission);
  return db.transaction(async (tx) => {
    await holdForChange(tx, 'submission', submission);
    const imported: Imported = { made: 0, known: 0 };
    for (const annotation of page.items) {
      const anchor = anchorOfTarget(folio, source, annotation.target);
      if (!anchor) throw refused(annotation, 'what it is about is not in this work');
      const author = Id.safeParse(idOf(annotation.creator.id));
      if (!author.success || !teachers.has(author.data))
        throw refused(annotation, `${annotation.creator.name} teaches no course of this work`);
      const made = await makeRemark(tx, { annotation, submission, author: author.data, anchor, bytesOf });
      imported[made ? 'made' : 'known']++;
    }
    return imported;
  });
}

interface ToMake {
  annotation: Annotation;
  submission: string;
  author: string;
  anchor: Anchor;
  bytesOf: (sha256: string) => Promise<Buffer | undefined>;
}

/** @returns false where the remark is there already */
async function makeRemark(tx: Queries, { annotation, submission, author, anchor, bytesOf }: ToMake): Promise<boolean> {
  const { kind, sound, transcript, written, file } = partsOf(annotation);
  const keep = (iri: string): Promise<Buffer> => keptMedium(tx, annotation, iri, bytesOf);
  const named = idOf(annotation.id);
  const there = named && (await selectRemark(tx, named, asTeacher));
  const hash = sound ? sha256OfIri(sound.id) : undefined;
  if (there) {
    const place = await selectRemarkPlace(tx, there.id);
    const same = place?.submission === submission && place.author === author;
    if (same && there.recording?.sound.sha256 === hash) return false;
  }
  const words = wordsHere(written, sound ? undefined : transcript?.value);
  const row: RemarkToInsert = {
    ...{ submission, author, anchor, words, kind: kind.value, madeAt: annotation.created },
    id: named && !there ? named : randomUUID(),
    recording: sound ? randomUUID() : null,
    file: file ? { sha256: await keep(file.id), name: file.fileName } : null,
  };
  if (!sound && !file && isEmpty(words)) throw refused(annotation, 'its stamp is a picture that is not here');
  if (sound)
    await insertRecording(tx, {
      ...{ id: row.recording!, owner: author, edit: null, madeAt: annotation.created },
      language: transcript?.language ?? (await selectSpokenLanguage(tx, author, submission)),
      sound: {
        sha256: await keep(sound.id),
        ...{ duration: sound.seconds, peaks: sound.peaks, picture: sound.picture ?? null },
      },
    });
  await insertRemark(tx, row);
  if (sound && transcript) {
    const { language, value: text, words, origin: source } = transcript;
    await putTranscript(tx, row.recording!, Transcript.parse({ language, text, words, source }), null);
    if (words.length === 0) await queueJob(tx, row.recording!, 'align', language);
  }
  return true;
}

const refused = ({ id }: Annotation, why: string): AnnotationRefused =>
  new AnnotationRefused(`The annotation ${id} cannot be read back: ${why}. Nothing was changed.`);

const idOf = (iri: string): string | undefined => {
  const id = Id.safeParse(iri.replace(/^urn:uuid:/, ''));
  return id.success ? id.data : undefined;
};

/** Annotations of one work may be read back into another, e.g. the next version. */
const sourceOf = ({ id }: AnnotationPage, submission: string): string =>
  /^(urn:uuid:[^#]+)#annotations$/.exec(id)?.[1] ?? workIri(submission);

type Body = Annotation['body'][number];

function partsOf(annotation: Annotation) {
  const find = <B extends Body>(is: (body: Body) => body is B): B | undefined => annotation.body.find(is);
  const sound = find((body): body is Extract<Body, { peaks: number[] }> => 'peaks' in body);
  const file = find((body): body is Extract<Body, { fileName: string }> => 'fileName' in body);
  const written = find((body): body is Extract<Body, { content: object }> => 'content' in body);
  const kind = find(
    (body): body is Extract<Body, { purpose: 'tagging' }> => 'purpose' in body && body.purpose === 'tagging',
  );
  const transcript = find(
    (body): body is Extract<Body, { purpose: 'describing' }> => 'purpose' in body && body.purpose === 'describing',
  );
  if (!sound && !written && !file) throw refused(annotation, 'it has no recording and says nothing');
  if (!kind) throw refused(annotation, 'it does not say what kind of remark it is');
  return { sound, kind, transcript, written, file };
}

/** A criterion of another assignment or a picture of another school means nothing here; words without sound are a text. */
function wordsHere(written: Extract<Body, { content: object }> | undefined, unspoken: string | undefined): SaidWords {
  if (!written) return { ...NO_WORDS, text: unspoken ?? '' };
  const { content, value } = written;
  const stamp = content.stamp && 'drawing' in content.stamp ? content.stamp : null;
  return { ...content, text: [value, unspoken].filter(Boolean).join('\n'), criterion: null, stamp };
}

async function keptMedium(
  tx: Queries,
  annotation: Annotation,
  iri: string,
  bytesOf: (sha256: string) => Promise<Buffer | undefined>,
): Promise<Buffer> {
  const sha256 = sha256OfIri(iri);
  if (sha256 === undefined) throw refused(annotation, 'its recording is not named by its SHA-256');
  const hash = Buffer.from(sha256, 'hex');
  if (await findMedium(tx, hash)) return hash;
  const bytes = await bytesOf(sha256);
  if (!bytes) throw refused(annotation, `its recording ${sha256} is not here`);
  const kept = await keepMedium(tx, bytes, await soundType(bytes));
  if (!kept.equals(hash)) throw refused(annotation, 'its recording is not the one that it names');
  return kept;
}

async function teachersOf(db: Queries, submission: string): Promise<Set<string>> {
  const rows = await select(
    db,
    z.object({ person: Id }),
    `select e.person from submissions s join assignments a on a.id = s.assignment
     join enrolments e on e.course = a.course and e.role = 'teacher' where s.id = $1`,
    [submission],
  );
  return new Set(rows.map(({ person }) => person));
}
