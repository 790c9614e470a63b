import { locatePassage, passageAnchor } from '#core/anchor';
import type { Folio } from '#core/folio';
import {
  drawingOf,
  drawingsOf,
  isNear,
  MOST_STROKES,
  placedStrokes,
  strokeOf,
  writeInkml,
  type Drawing,
  type PlacedStroke,
} from '#core/ink';
import { keyEntry, KEY_INKS } from '#core/margin';
import { nameOfWork } from '../wording/file-names.ts';
import { PLAIN_COLOURS, PLAIN_HEX } from '#contract/ink';
import type { Remark } from '#contract/remarks';
import type { Work } from '#contract/submissions';
import { provide, watch } from 'vue';
import { useFeedback } from '../feedback/feedback-store.ts';
import { useFeedbackActions } from '../feedback/use-feedback-actions.ts';
import { useMarginKey } from '../feedback/margin-key.ts';
import { useAnchorName } from '../feedback/use-anchor-name.ts';
import { NoInkml, readInkml, type InkmlStroke } from '../ink/inkml-file.ts';
import { useInkTools } from '../ink/ink-tools.ts';
import { INKING, TALKED, type StrokeChange } from '../ink/inking.ts';
import type { Talking } from './use-talking.ts';

/** Milliseconds after which a stroke begins a remark of its own. */
const TOGETHER = 4000;
const LARGEST_INK = 400_000;

interface Options {
  work: () => Work | undefined;
  returned: () => boolean;
  /** The kind of a remark whose colour says none. */
  kind: () => string;
  /** The page, slide or picture in sight. */
  page: () => number | undefined;
  /** Leads to what was drawn last, when somebody is done with drawing. */
  show: (remark: string) => void;
  /** While it is on, strokes go into it. */
  talking: Talking;
}

/** What is drawn becomes remarks: strokes that are made together are one. */
export function useInk({ work, returned, kind, page, show, talking }: Options): void {
  const store = useFeedback();
  const actions = useFeedbackActions();
  const margin = useMarginKey();
  const anchorName = useAnchorName();
  const { on } = useInkTools();
  let last: { remark: string; at: number } | undefined;
  /** One after the other, since each builds on what the one before has left. */
  let doing: Promise<unknown> = Promise.resolve();
  const inTurn = (deed: () => Promise<void>): void => void (doing = doing.then(deed, deed));

  const remarkOf = (id: string | undefined): Remark | undefined =>
    store.feedback?.remarks.find((remark) => remark.id === id);

  const paper = (): Pick<Folio, 'text' | 'leaves'> => work()?.folio ?? { text: '', leaves: [] };
  const drawing = (strokes: readonly PlacedStroke[]): Drawing | undefined => drawingOf(strokes, paper());

  const weight = (strokes: readonly PlacedStroke[]): number =>
    strokes.reduce((sum, one) => sum + strokeOf(one).points.length, 0);

  /** What was drawn a moment ago, where a new stroke belongs to it. */
  function goesWith(stroke: PlacedStroke): Remark | undefined {
    const remark = remarkOf(last?.remark);
    if (!remark?.ink || performance.now() - last!.at > TOGETHER) return undefined;
    const { colour } = strokeOf(stroke);
    if (!isPlain(colour) && colour !== remark.kind) return undefined;
    const all = [...placedStrokes(remark), stroke];
    if (all.length > MOST_STROKES || weight(all) > LARGEST_INK) return undefined;
    return isNear(stroke, remark.anchor, work()!.folio) ? remark : undefined;
  }

  function draw(stroke: PlacedStroke): void {
    const submission = work()?.id;
    if (submission === undefined || returned() || talking.draw(stroke)) return;
    inTurn(async () => {
      if (work()?.id !== submission) return;
      const before = goesWith(stroke);
      const now = drawing([...(before ? placedStrokes(before) : []), stroke]);
      if (!now) return;
      if (before) await actions.amend(before, now);
      else {
        const id = crypto.randomUUID();
        const { colour } = now.ink[0]!;
        last = { remark: id, at: 0 };
        await actions.make(submission, {
          ...{ id, anchor: now.anchor, kind: isPlain(colour) ? kind() : colour },
          words: { ink: now.ink },
        });
      }
      last!.at = performance.now();
    });
  }

  /** Rubs strokes out, or puts others in their place. */
  function change(changes: readonly StrokeChange[]): void {
    if (returned()) return;
    for (const { stroke, to } of changes.filter(({ remark }) => remark === TALKED)) talking.change(stroke, to);
    for (const id of new Set(changes.map(({ remark }) => remark)))
      inTurn(async () => {
        const remark = remarkOf(id);
        if (!remark?.ink) return;
        const left = [...placedStrokes(remark)];
        const next = remark.ink.flatMap((stroke, index) => {
          const found = changes.find((one) => one.remark === id && one.stroke.points === stroke.points);
          return found ? found.to : [left[index]!];
        });
        const now = drawing(next);
        if (now) await actions.amend(remark, now);
        else if (remark.recording || remark.text !== '') await actions.amend(remark, { ink: null });
        else await actions.putAside(remark);
      });
  }

  function save(): { name: string; content: string } | undefined {
    const drawnOn = (store.feedback?.remarks ?? []).filter(({ ink }) => ink);
    const now = work();
    if (!now || drawnOn.length === 0) return undefined;
    const groups = drawnOn.map(({ anchor, ink }) => ({
      label: anchorName(anchor),
      ...(anchor.type === 'passage' && { quote: anchor.quote }),
      strokes: ink!,
    }));
    return { name: `${nameOfWork(now)}.inkml`, content: writeInkml(groups, hexOf) };
  }

  const hexOf = (colour: string): string => PLAIN_HEX[colour] ?? KEY_INKS[keyEntry(margin.key.value, colour).color];

  async function take(content: string): Promise<void> {
    const read = readInkml(content);
    const [lying, held] = [read.filter(({ stroke }) => !stroke.hold), read.filter(({ stroke }) => stroke.hold)];
    const leaf = page();
    if (lying.length > 0 && leaf === undefined)
      throw new NoInkml('Strokes of a file lie on a page, a slide or a picture. Go to one first; this is a text.');
    const drawings =
      lying.length > 0
        ? drawingsOf(
            lying.map(({ stroke }) => ({ leaf: leaf!, stroke })),
            paper(),
          )
        : [];
    const onWords = heldAgain(held);
    if (drawings.length + onWords.length === 0)
      throw new NoInkml('The words that these strokes belong to are not in this work.');
    for (const { anchor, ink } of [...drawings, ...onWords])
      await actions.make(work()!.id, { id: crypto.randomUUID(), anchor, kind: kind(), words: { ink } });
  }

  /** Strokes on words, at the same words of this text; those whose words are not here are left out. */
  function heldAgain(held: readonly InkmlStroke[]): Drawing[] {
    const { text } = paper();
    const byQuote = new Map<string, InkmlStroke[]>();
    for (const one of held) {
      const key = JSON.stringify(one.quote ?? null);
      byQuote.set(key, [...(byQuote.get(key) ?? []), one]);
    }
    return [...byQuote.values()].flatMap((strokes) => {
      const { quote } = strokes[0]!;
      const found = quote && locatePassage(text, quote);
      const anchor = found && passageAnchor(text, found.start, found.end);
      return anchor ? [{ anchor, ink: strokes.map(({ stroke }) => stroke) }] : [];
    });
  }

  provide(INKING, { draw, change, save, take });
  watch(on, (now) => {
    if (!now && last && remarkOf(last.remark)) show(last.remark);
    last = undefined;
  });
  watch(
    () => work()?.id,
    () => {
      on.value = false;
      last = undefined;
    },
  );
}

const isPlain = (colour: string): boolean => (PLAIN_COLOURS as readonly string[]).includes(colour);
