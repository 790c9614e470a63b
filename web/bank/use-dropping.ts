import type { Anchor } from '#core/anchor';
import type { Rubric } from '#core/grading';
import type { BankedRemark } from '#contract/bank';
import type { Recording } from '#contract/recordings';
import { NO_WORDS, type SaidWords } from '#contract/said';
import type { Work } from '#contract/submissions';
import { ref } from 'vue';
import { useMarginKey } from '../feedback/margin-key.ts';
import { useFeedbackActions } from '../feedback/use-feedback-actions.ts';
import { soundBlob } from '../player/media-url.ts';
import { rememberBytes } from '../player/local-media.ts';
import { aroundOf } from './around.ts';
import { greetWith } from './greet.ts';

interface Place {
  anchor: Anchor;
  rubric: Rubric;
  /** Title of the criterion that the passage is most likely about. */
  likely: string | null;
  /** A few words to the student, to be put before it. */
  greeting: Recording | undefined;
}

/** Puts copies of banked remarks on a work. */
export function useDropping(work: () => Work) {
  const actions = useFeedbackActions();
  const margin = useMarginKey();
  const busy = ref(false);
  const problem = ref<string>();

  /** @returns the id of the remark; undefined where there is none, and `problem` says why */
  async function drop(kept: BankedRemark, { anchor, rubric, likely, greeting }: Place): Promise<string | undefined> {
    problem.value = undefined;
    const banked = kept;
    if (banked.suggestion !== null && anchor.type !== 'passage') {
      problem.value = 'This one suggests other words. Select the words that it should change.';
      return undefined;
    }
    const { id: submission, folio } = work();
    const greets = banked.recording && !banked.recording.sound.picture ? greeting : undefined;
    busy.value = greets !== undefined;
    try {
      const greeted = greets ? await greetWith(banked, greets) : null;
      return await actions.drop(submission, {
        ...{ banked: banked.id, anchor, greeted },
        kind: kindHere(banked.kind),
        words: wordsOf(banked, criterionIn(rubric, banked.criterion || likely)),
        around: aroundOf(folio, anchor),
        recording: banked.recording && copyOf(banked.recording),
      });
    } catch {
      problem.value =
        'The greeting could not be put before it. Leave the greeting out, or check the network and try again.';
      return undefined;
    } finally {
      busy.value = false;
    }
  }

  /** Another course may have other kinds. */
  const kindHere = (kind: string): string =>
    (margin.key.value.find((entry) => entry.kind === kind) ?? margin.key.value[0]!).kind;

  return { drop, busy, problem };
}

const criterionIn = (rubric: Rubric, title: string | null): string | null =>
  rubric.find((criterion) => criterion.title.trim().toLowerCase() === title?.trim().toLowerCase())?.id ?? null;

function wordsOf({ name, text, link, reaction, suggestion, tags }: BankedRemark, criterion: string | null): SaidWords {
  return { ...NO_WORDS, name, text, link, reaction, suggestion, tags, criterion };
}

/** The copy has an id of its own; until the server has it, its sound is here. */
function copyOf(recording: Recording): Recording {
  const { sha256 } = recording.sound;
  void soundBlob(recording).then(
    (blob) => rememberBytes({ sha256, blob }),
    () => undefined,
  );
  return { ...recording, id: crypto.randomUUID(), edit: null, heard: null, madeAt: new Date().toISOString() };
}
