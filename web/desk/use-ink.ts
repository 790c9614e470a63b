import { passageAnchor, type Anchor } from '#core/anchor';
import { gather, regionOfStrokes, takeApart, writeInkml, type KeptOnWords, type Stroke } from '#core/ink';
import { keyEntry, KEY_INKS } from '#core/margin';
import { fileNameOf } from '#core/text';
import { PLAIN_COLOURS, PLAIN_HEX } from '#contract/ink';
import type { Remark } from '#contract/remarks';
import type { Work } from '#contract/submissions';
import { provide, watch } from 'vue';
import { useFeedback } from '../feedback/feedback-store.ts';
import { useFeedbackActions } from '../feedback/use-feedback-actions.ts';
import { useMarginKey } from '../feedback/margin-key.ts';
import { useAnchorName } from '../feedback/use-anchor-name.ts';
import { NoInkml, readInkml } from '../ink/inkml-file.ts';
import { useInkTools } from '../ink/ink-tools.ts';
import { INKING, type PlacedStroke, type StrokeChange } from '../ink/inking.ts';

/** Milliseconds after which a stroke begins a remark of its own. */
const TOGETHER = 4000;
/** Strokes further apart than so many characters, or than this share of the leaf, are about something else. */
const FAR_IN_TEXT = 160;
const FAR_ON_LEAF = 0.15;
/** As many as one remark holds. */
const MOST_STROKES = 400;
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
}

interface Drawing {
  ink: Stroke[];
  anchor: Anchor;
}

/** What is drawn becomes remarks: strokes that are made together are one. */
export function useInk({ work, returned, kind, page, show }: Options): void {
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

  function ratioOf(leaf: number): number {
    const one = work()?.folio.leaves[leaf];
    return one && 'width' in one && 'height' in one ? one.width / one.height : 1;
  }

  /** One drawing of some strokes about one place; undefined where they have none. */
  function drawing(strokes: readonly PlacedStroke[]): Drawing | undefined {
    const held = strokes.flatMap((one) => ('held' in one ? [one.held] : []));
    if (held.length > 0) return onWords(held);
    const ink = strokes.flatMap((one) => ('stroke' in one ? [one.stroke] : []));
    const leaf = strokes[0]?.leaf;
    if (leaf === undefined || ink.length === 0) return undefined;
    return { ink, anchor: { type: 'region', leaf, ...regionOfStrokes(ink, ratioOf(leaf)) } };
  }

  function onWords(held: readonly KeptOnWords[]): Drawing | undefined {
    const { strokes, start, end } = gather(held);
    const text = work()?.folio.text ?? '';
    const anchor = passageAnchor(text, start, Math.min(end, text.length));
    return anchor && { ink: strokes, anchor };
  }

  function placed({ ink, anchor }: Remark): PlacedStroke[] {
    if (!ink) return [];
    if (anchor.type === 'region') return ink.map((stroke) => ({ leaf: anchor.leaf, stroke }));
    return anchor.type === 'passage' ? takeApart(ink, anchor.start).map((held) => ({ leaf: -1, held })) : [];
  }

  const weight = (strokes: readonly PlacedStroke[]): number =>
    strokes.reduce((sum, one) => sum + ('held' in one ? one.held.stroke : one.stroke).points.length, 0);

  /** What was drawn a moment ago, where a new stroke belongs to it. */
  function goesWith(stroke: PlacedStroke): Remark | undefined {
    const remark = remarkOf(last?.remark);
    if (!remark?.ink || performance.now() - last!.at > TOGETHER) return undefined;
    const colour = 'held' in stroke ? stroke.held.stroke.colour : stroke.stroke.colour;
    if (!isPlain(colour) && colour !== remark.kind) return undefined;
    const all = [...placed(remark), stroke];
    if (all.length > MOST_STROKES || weight(all) > LARGEST_INK) return undefined;
    const { anchor } = remark;
    if ('held' in stroke)
      return anchor.type === 'passage' &&
        stroke.held.start < anchor.end + FAR_IN_TEXT &&
        stroke.held.end > anchor.start - FAR_IN_TEXT
        ? remark
        : undefined;
    if (anchor.type !== 'region' || anchor.leaf !== stroke.leaf) return undefined;
    const box = regionOfStrokes([stroke.stroke], ratioOf(stroke.leaf));
    const apart = Math.max(
      box.x - anchor.x - anchor.width,
      anchor.x - box.x - box.width,
      box.y - anchor.y - anchor.height,
      anchor.y - box.y - box.height,
    );
    return apart < FAR_ON_LEAF ? remark : undefined;
  }

  function draw(stroke: PlacedStroke): void {
    const submission = work()?.id;
    if (submission === undefined || returned()) return;
    inTurn(async () => {
      if (work()?.id !== submission) return;
      const before = goesWith(stroke);
      const now = drawing([...(before ? placed(before) : []), stroke]);
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
    for (const id of new Set(changes.map(({ remark }) => remark)))
      inTurn(async () => {
        const remark = remarkOf(id);
        if (!remark?.ink) return;
        const left = [...placed(remark)];
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
    const groups = drawnOn.map(({ anchor, ink }) => ({ label: anchorName(anchor), strokes: ink! }));
    return { name: `${fileNameOf(now.student.name, 'Strokes')}.inkml`, content: writeInkml(groups, hexOf) };
  }

  const hexOf = (colour: string): string => PLAIN_HEX[colour] ?? KEY_INKS[keyEntry(margin.key.value, colour).color];

  async function take(content: string): Promise<void> {
    const leaf = page();
    if (leaf === undefined)
      throw new NoInkml('Strokes of a file lie on a page, a slide or a picture. Go to one first; this is a text.');
    const strokes = readInkml(content).filter(({ hold }) => hold === undefined);
    if (strokes.length === 0)
      throw new NoInkml('The strokes in this file belong to words of a text, and cannot be put on a page.');
    const submission = work()!.id;
    for (let from = 0; from < strokes.length; from += MOST_STROKES) {
      const now = drawing(strokes.slice(from, from + MOST_STROKES).map((stroke) => ({ leaf, stroke })))!;
      const words = { ink: now.ink };
      await actions.make(submission, { id: crypto.randomUUID(), anchor: now.anchor, kind: kind(), words });
    }
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
