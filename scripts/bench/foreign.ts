import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Endpoint } from '../../contract/endpoint.ts';
import { openDatabase } from '../../server/db/open.ts';
import { ROOT } from '../../server/root.ts';
import { allEndpoints } from '../../server/testing/contract.ts';
import { oneOfEach } from '../../server/testing/one-of-each.ts';
import { startTestSchool } from '../../server/testing/school.ts';
import { askWithFile, askWithText, FILES, longestText, REPEATED, type Asked } from '../../server/testing/worst.ts';
import { round } from './figure.ts';

const BYTES = 900_000;
/** Shorter texts are asked with fewer repetitions: they cannot take long. */
const LONG = 20_000;
const SHOWN = 12;
const REFUSED = new Set([400, 403, 404, 409, 415]);

/**
 * Texts that are built to take long, a megabyte where an endpoint takes as much: how long the worst answers took, and for how long the
 * server answered nobody else meanwhile.
 * @param only endpoints whose path holds this
 * @param onAsked told of each answer
 */
export async function benchForeign(only = '', onAsked?: (one: Asked) => void): Promise<object> {
  const dataFolder = await mkdtemp(path.join(tmpdir(), 'vivid-foreign-'));
  const db = await openDatabase({ databaseUrl: undefined, dataFolder, cacheFolder: path.join(ROOT, '.cache') });
  const school = await startTestSchool(db);
  const asked: Asked[] = [];
  const add = (one: Asked): void => {
    asked.push(one);
    onAsked?.(one);
  };
  try {
    const ids = await oneOfEach(db, school);
    const endpoints = (await allEndpoints()).filter(({ path }) => path.includes(only));
    for (const endpoint of endpoints)
      for (const client of [school.as.teacher, school.as.author]) {
        const ask = { client, endpoint, ids };
        for (const what of repetitionsFor(endpoint)) add(await askWithText({ ...ask, what, bytes: BYTES }));
        if (!endpoint.upload) continue;
        for (const name of Object.keys(FILES)) {
          // Who may not, or what is of no use to it, is not asked sixty times.
          const first = await askWithFile({ ...ask, what: 'a ', bytes: 1000 }, name);
          if (REFUSED.has(first.status)) continue;
          for (const what of REPEATED) add(await askWithFile({ ...ask, what, bytes: BYTES }, name));
        }
      }
  } finally {
    await school.stop();
    await db.close();
    await rm(dataFolder, { recursive: true });
  }
  return {
    asked: asked.length,
    faults: asked
      .filter(({ status }) => status >= 500)
      .map(({ what, repeated }) => `${what} ${JSON.stringify(repeated)}`),
    slowest: worst(asked, ({ seconds, megabytes }) => seconds / Math.max(1, megabytes)),
    longestBlocked: worst(asked, ({ blocked }) => blocked),
  };
}

function repetitionsFor(endpoint: Endpoint): readonly string[] {
  const longest = longestText(endpoint);
  if (longest === 0) return [];
  return longest >= LONG ? REPEATED : REPEATED.filter((_, at) => at % 10 === 0);
}

const worst = (asked: readonly Asked[], by: (one: Asked) => number): object[] =>
  asked
    .toSorted((a, b) => by(b) - by(a))
    .slice(0, SHOWN)
    .map((one) => ({
      ...one,
      megabytes: round(one.megabytes),
      seconds: round(one.seconds),
      blocked: round(one.blocked),
    }));
