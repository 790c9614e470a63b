/** The modules that run in threads of their own, by the names under which they are built. */
export const WORKERS = {
  bank: 'server/bank/bank-worker.ts',
  bankFile: 'server/bank-file/read-worker.ts',
  database: 'server/db/pglite-worker.ts',
  documents: 'server/documents/read-worker.ts',
  oneRoster: 'server/oneroster/pack-worker.ts',
  nameless: 'server/nameless/nameless-worker.ts',
  marking: 'server/marked/marking-worker.ts',
  reading: 'server/reading/reading-worker.ts',
  reattaching: 'server/earlier/reattach-worker.ts',
  speech: 'server/speech/speech-worker.ts',
} as const;
