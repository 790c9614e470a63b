import type { Anchor } from '#core/anchor';
import type { Folio } from '#core/folio';
import type { Remark } from '#contract/remarks';
import { until } from '@vueuse/core';
import type { Ref } from 'vue';
import { useRecorder } from '../recorder/use-recorder.ts';
import { useTalkShow, type TalkShow } from '../talk/use-talk-show.ts';
import { useTalking, type Talking } from './use-talking.ts';
import type { useSpeaking } from './voice/use-speaking.ts';

interface Options {
  submission: () => string;
  folio: () => Folio | undefined;
  root: () => Element | null;
  target: () => Anchor | undefined;
  remarks: () => readonly Remark[];
  focused: Ref<string | undefined>;
  returned: () => boolean;
  speaking: Pick<ReturnType<typeof useSpeaking>, 'nextKind' | 'talkThrough'>;
}

/** Talk-throughs on the desk: the one that is being made, and those that are heard. */
export function useTalkDesk({ submission, folio, root, target, remarks, focused, returned, speaking }: Options): {
  talking: Talking;
  show: TalkShow;
  begin(): void;
} {
  const recorder = useRecorder();
  const talking = useTalking({ submission, folio, root, target, kind: () => speaking.nextKind.value });

  function begin(): void {
    // What was shown of another one would lie below what is drawn now.
    focused.value = undefined;
    void speaking.talkThrough();
  }

  async function speakOver(): Promise<boolean> {
    if (returned() || recorder.speaking.value) return false;
    begin();
    await until(() => talking.on.value || (!recorder.speaking.value && recorder.problem.value !== null)).toBe(true);
    return talking.on.value;
  }

  const show = useTalkShow({
    ...{ remarks, root, live: talking.strokes },
    focused: () => focused.value,
    performing: { begun: talking.begun, halted: talking.halted, speakOver },
  });
  return { talking, show, begin };
}
