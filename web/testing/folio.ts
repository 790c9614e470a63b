import 'fake-indexeddb/auto';
import { folioOf, type Folio } from '#core/folio';
import { DEFAULT_KEY } from '#core/margin';
import type { Work } from '#contract/submissions';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { readDocument } from '../../server/documents/read.ts';
import { createPinia, setActivePinia } from 'pinia';
import type { DrawnStretch, FolioContext } from '../folio/folio-context.ts';

// Parts of a work ask the stores what kinds look like.
setActivePinia(createPinia());

const ID = '6f0b3c0e-7d55-4f58-9a52-0d0f0a1b2c3d';

/** What the parts of a drawn work share, where nothing is marked and nothing can be chosen. */
export const folioContext = ({
  stretches = [],
  ...change
}: Partial<Omit<FolioContext, 'stretches'>> & { stretches?: DrawnStretch[] } = {}): FolioContext => ({
  submission: ID,
  marks: [],
  stretches: new Map(stretches.map((stretch) => [stretch.id, stretch])),
  edits: new Map(),
  cuts: stretches,
  focused: undefined,
  target: undefined,
  choosing: false,
  boxing: false,
  inked: false,
  wordless: new Map(),
  pick: () => undefined,
  choose: () => undefined,
  ...change,
});

export async function readFolio(file: string): Promise<Folio> {
  return folioOf([(await readDocument(readFileSync(file), path.basename(file))).file]);
}

export const workOf = (folio: Folio): Work => ({
  id: ID,
  version: 1,
  versions: [{ id: ID, version: 1, handedInAt: '2026-01-01T00:00:00Z', returnedAt: null }],
  student: { id: ID, name: 'Student' },
  files: folio.files.map(({ name }) => ({ name, mediaType: 'application/octet-stream' })),
  handedInAt: '2026-01-01T00:00:00Z',
  late: false,
  nameless: false,
  assignment: { id: ID, title: '', course: '', courseId: ID, dueAt: null, moderation: null },
  course: ID,
  marginKey: [...DEFAULT_KEY],
  budget: 30,
  folio,
});
