import { LABEL_HEIGHT, pathOf, type DrawnStroke } from '#core/ink';
import { grown, isSeen, lastBefore, type Timeline } from '#core/talk';
import { PAPER_WIDTH, strokeOnPaper, type PhotographedWork } from '../../paper/photograph.ts';

/** Pixels. */
export const FRAME = { width: 1280, height: 720 };
const SIDE = (FRAME.width - PAPER_WIDTH) / 2;
const READING = 0.4;
const CAPTION_HEIGHT = 64;
/** Seconds in which the page goes most of its way. */
const GLIDE = 0.35;

export interface FilmLook {
  ground: string;
  ink: string;
  paper: string;
  font: string;
  /** Of a kind, or a colour that says none. */
  colour(name: string): string;
}

interface Scene {
  timeline: Timeline;
  paper: PhotographedWork;
  look: FilmLook;
  /** The kind of passages that have none of their own. */
  kind: string;
  /** What is said at a moment. */
  captionAt(moment: number): readonly string[];
}

/** Draws a talk-through moment by moment, in their order; tells where nothing has changed since the moment before. */
export function filmDrawer(context: CanvasRenderingContext2D, scene: Scene): (moment: number, step: number) => boolean {
  const { timeline, paper, look } = scene;
  const placed = timeline.strokes.map((timed) => ({ timed, drawn: strokeOnPaper(paper, timed.placed) }));
  let scroll: number | undefined;
  let before = '';

  return (moment, step) => {
    const view = lastBefore(timeline.views, moment);
    const goal = limited((view ? paper.placeOf(view) : 0) - FRAME.height * READING, paper.height);
    scroll = scroll === undefined ? goal : scroll + (goal - scroll) * (1 - Math.exp(-step / GLIDE));
    if (Math.abs(goal - scroll) < 0.5) scroll = goal;
    const said = timeline.passages.filter(({ at }) => at <= moment);
    const strokes = placed.filter(({ timed }) => isSeen(timed, moment));
    const growing = strokes.some(({ timed }) => moment < timed.drawn) ? moment : '';
    const caption = scene.captionAt(moment);
    const now = [scroll, said.length, strokes.length, growing, caption.join(' ')].join('|');
    if (now === before) return false;
    before = now;

    context.fillStyle = look.ground;
    context.fillRect(0, 0, FRAME.width, FRAME.height);
    context.save();
    context.translate(SIDE, -Math.round(scroll));
    for (const { picture, left, top, right, bottom } of paper.leaves)
      if (bottom > scroll && top < scroll + FRAME.height)
        context.drawImage(picture, left, top, right - left, bottom - top);
    said.forEach(({ anchor, kind }, index) => {
      context.fillStyle = look.colour(kind ?? scene.kind);
      context.globalAlpha = index === said.length - 1 ? 0.26 : 0.1;
      for (const { left, top, right, bottom } of paper.boxesOf(anchor))
        context.fillRect(left, top, right - left, bottom - top);
    });
    context.globalAlpha = 1;
    for (const { timed, drawn } of strokes)
      for (const stroke of drawn) {
        const part = moment < timed.drawn ? grown(stroke, moment - timed.at) : stroke;
        if (part) drawStroke(context, part, look);
      }
    context.restore();
    drawCaption(context, caption, look);
    return true;
  };
}

const limited = (scroll: number, height: number): number =>
  Math.max(-24, Math.min(scroll, height + CAPTION_HEIGHT - FRAME.height));

function drawStroke(context: CanvasRenderingContext2D, stroke: DrawnStroke, look: FilmLook): void {
  context.fillStyle = context.strokeStyle = look.colour(stroke.colour);
  context.globalAlpha = stroke.tool === 'highlighter' ? 0.32 : 1;
  context.lineWidth = stroke.width;
  context.lineCap = context.lineJoin = 'round';
  if (stroke.tool === 'label') {
    context.font = `600 ${stroke.width * LABEL_HEIGHT}px ${look.font}`;
    context.fillText(stroke.text ?? '', stroke.points[0]!.x, stroke.points[0]!.y);
  } else {
    const { d, filled } = pathOf(stroke);
    if (filled) context.fill(new Path2D(d));
    else context.stroke(new Path2D(d));
  }
  context.globalAlpha = 1;
}

function drawCaption(context: CanvasRenderingContext2D, lines: readonly string[], look: FilmLook): void {
  if (lines.length === 0) return;
  context.fillStyle = look.paper;
  context.fillRect(0, FRAME.height - CAPTION_HEIGHT, FRAME.width, CAPTION_HEIGHT);
  context.fillStyle = look.ink;
  context.font = `20px ${look.font}`;
  context.textAlign = 'center';
  lines.slice(0, 2).forEach((line, index, all) => {
    const y = FRAME.height - CAPTION_HEIGHT / 2 + 7 + (index - (all.length - 1) / 2) * 26;
    context.fillText(line, FRAME.width / 2, y, FRAME.width - 80);
  });
  context.textAlign = 'start';
}
