import { NO_WORDS } from '#contract/said';

/*
 * Changes as the first version of the app kept them in the browser. There a recording was part of its remark or its answer, and
 * it goes on under the id of that one, as the server's migration has it.
 */

type Old = Record<string, unknown> & { type: string; remark: string };

const sound = (old: unknown): object => ({ picture: null, ...(old as object) });

const recording = (id: unknown, { sound: spoken, edit = null, draft = null }: Old): object | null =>
  spoken ? { id, sound: sound(spoken), edit, draft } : null;

const SORTS: Record<string, (old: Old) => object> = {
  remark: (old) => {
    const { remark, author, anchor, kind, content, file = null, madeAt } = old;
    const words = { ...NO_WORDS, ...(content as object | undefined) };
    return {
      ...{ type: 'make remark', remark, author, anchor, kind, words, file, madeAt },
      recording: recording(remark, old),
    };
  },
  aside: (old) => ({ ...old, type: 'put aside' }),
  content: (old) => ({ ...old, type: 'amend' }),
  sound: ({ remark, sound: spoken, edit, transcript = null }) => ({
    ...{ type: 'replace sound', recording: remark, sound: sound(spoken), edit, transcript },
  }),
  original: ({ remark, blob }) => ({ type: 'keep original', recording: remark, blob }),
  transcript: ({ remark, language, text, read = true }) => ({ type: 'mend', recording: remark, language, text, read }),
  translation: ({ remark, language, text }) => ({ type: 'translate', recording: remark, language, text }),
  score: (old) => old,
  points: (old) => ({ ...old, type: 'give points' }),
  heard: ({ remark, finished, at }) => ({ type: 'hear', recording: remark, finished, at }),
  taken: (old) => ({ ...old, type: 'take over' }),
  reply: (old) => {
    const { remark, reply, author, text, at } = old;
    return { ...{ type: 'answer', remark, reply, author, text, at }, recording: recording(reply, old) };
  },
};

/** The same change as this version writes it; what is not known is left as it is, and refused by its schema. */
export function firstChange(kept: unknown): unknown {
  const old = kept as Old;
  return SORTS[old.type]?.(old) ?? old;
}
