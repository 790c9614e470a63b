import { Router } from 'express';
import {
  BANK_PAGE,
  changeBanked,
  dropBanked as dropEndpoint,
  findAlike,
  findInBank,
  keepInBank as keepEndpoint,
  mergeBanked,
  putBankedAside,
  readBanked,
  readColleagues,
  readBankFilters,
  readUses,
  suggestFromBank,
  takeBetter as takeBetterEndpoint,
  type BankedRemark,
  type BankFound,
  type BankSearch,
} from '../../contract/bank.ts';
import { authorise } from '../access/authorise.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { selectWorkLanguage } from '../languages/queries.ts';
import { fairTurns } from '../threads/fair-turns.ts';
import { wake } from '../recordings/make.ts';
import { takeBetter } from './better.ts';
import { dropBanked } from './drop.ts';
import { keepInBank } from './keep.ts';
import {
  selectBanked,
  selectColleagues,
  selectFilters,
  selectFitting,
  selectPage,
  updateBanked,
  updateBankedAside,
  type Listed,
} from './queries.ts';
import { selectSaid } from './said.ts';
import { moveUses, selectUses } from './uses.ts';

/** Between two people who look through their banks everybody else is answered. */
const turns = fairTurns({ atOnce: 1, each: 1, patience: 30_000 });

/** More than anybody goes through. */
const MOST_FOUND = 1000;

export function bankRoutes(context: Context): Router {
  const router = Router();
  const { db, bank } = context;
  const one = async (person: { id: string }, id: string): Promise<BankedRemark> => {
    const [found] = await selectBanked(db, person.id, [id]);
    if (!found) throw problems.notFound();
    return found;
  };

  serve(router, context, findInBank, 'own', ({ body, person }) => turns.take(person.id, () => find(person.id, body)));

  async function find(owner: string, { query, order, offset, ...listed }: BankSearch): Promise<BankFound> {
    // What was put aside is in no index.
    if (order !== 'best' || query.trim() === '' || listed.aside) {
      const by = order === 'best' ? 'lastUsed' : order;
      const { ids, total } = await selectPage(db, owner, listed, { order: by, offset, limit: BANK_PAGE });
      return { remarks: await selectBanked(db, owner, ids), total };
    }
    const fitting = isFiltered(listed) ? await selectFitting(db, owner, listed) : null;
    const found = await bank.find(db, owner, { query, most: MOST_FOUND, fitting });
    return { remarks: await selectBanked(db, owner, found.slice(offset, offset + BANK_PAGE)), total: found.length };
  }

  serve(router, context, readBankFilters, 'own', ({ person }) => selectFilters(db, person.id));

  serve(router, context, readColleagues, 'own', async ({ person }) =>
    person.teaches ? selectColleagues(db, person.id) : [],
  );

  serve(router, context, findAlike, 'own', async ({ body: { text, language, except }, person }) => {
    const said = await selectSaid(db, person.id);
    const found = await bank.alike(db, person.id, { text, language, said });
    const banked = await selectBanked(
      db,
      person.id,
      found.banked.filter((id) => id !== except),
    );
    return { banked, said: found.said };
  });

  serve(router, context, keepEndpoint, 'own', async ({ params, body, file, person }) => {
    if (!person.teaches) throw problems.notAllowed();
    return keepInBank(context, { id: params.banked, owner: person.id, banked: body, file });
  });

  serve(router, context, readBanked, 'bank.read', ({ params, person }) => one(person, params.banked));

  serve(router, context, changeBanked, 'bank.change', async ({ params, body, person }) => {
    for (const course of body.shared?.courses ?? []) await authorise(db, person.id, 'course.set', { course });
    await db.transaction(async (tx) =>
      updateBanked(tx, person.id, (await selectBanked(tx, person.id, [params.banked]))[0]!, body),
    );
    return one(person, params.banked);
  });

  serve(router, context, putBankedAside, 'bank.change', async ({ params, body, person }) => {
    await updateBankedAside(db, params.banked, body.aside);
    return one(person, params.banked);
  });

  serve(router, context, mergeBanked, 'bank.change', async ({ params, body, person }) => {
    await authorise(db, person.id, 'bank.change', { banked: body.into });
    await db.transaction(async (tx) => {
      await moveUses(tx, params.banked, body.into);
      await updateBankedAside(tx, params.banked, true);
    });
    return one(person, body.into);
  });

  serve(router, context, takeBetterEndpoint, 'bank.change', async ({ params, body, person }) => {
    await db.transaction((tx) => takeBetter(tx, person.id, { ...body, banked: params.banked }));
    wake(context);
    return one(person, params.banked);
  });

  serve(router, context, readUses, 'bank.read', ({ params, person }) => selectUses(db, params.banked, person.id));

  serve(router, context, suggestFromBank, 'remark.drop', async ({ params, body, person }) => {
    const { kind, criterion, ...around } = body;
    const language = await selectWorkLanguage(db, params.submission);
    const passage = { ...around, kind: kind ?? undefined, criterion: criterion ?? undefined };
    const found = await bank.suggest(db, person.id, { language, passage });
    const remarks = await selectBanked(
      db,
      person.id,
      found.map(({ id }) => id),
    );
    return {
      criterion: criterion ?? likeliestCriterion(remarks),
      suggestions: remarks.map((remark) => ({ remark, reasons: found.find(({ id }) => id === remark.id)!.reasons })),
    };
  });

  serve(router, context, dropEndpoint, 'remark.drop', ({ params, body, file, person }) =>
    dropBanked(context, { id: params.remark, submission: params.submission, person: person.id, drop: body, file }),
  );
  return router;
}

const isFiltered = ({ kind, criterion, language, tag, owner, unused }: Listed): boolean =>
  unused || owner !== null || kind !== null || criterion !== null || language !== null || tag !== null;

/** What most of the first three are about. */
function likeliestCriterion(remarks: readonly BankedRemark[]): string | null {
  const counts = new Map<string, number>();
  for (const { criterion } of remarks.slice(0, 3))
    if (criterion !== '') counts.set(criterion, (counts.get(criterion) ?? 0) + 1);
  return [...counts].sort(([, a], [, b]) => b - a)[0]?.[0] ?? null;
}
