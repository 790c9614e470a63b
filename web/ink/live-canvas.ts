import { pathOf, type DrawnStroke, type InkPoint } from '#core/ink';

/** How much thinner than the width of its pen a line is at no pressure, and how much it grows. */
const [LEAST, MORE] = [0.45, 1.1];

/** Draws the stroke in hand at once, on a canvas over the part of the layer that is in sight. */
export interface LiveCanvas {
  /** Lays the canvas over what is in sight of the field where one draws. */
  begin(): void;
  /** @param fresh how many of its points are new */
  draw(stroke: DrawnStroke, fresh: number): void;
  clear(): void;
}

export function liveCanvas(canvas: HTMLCanvasElement, layer: HTMLElement): LiveCanvas {
  const context = canvas.getContext('2d', { desynchronized: true });
  let sharp = 1;
  let origin = { x: 0, y: 0 };

  function clear(): void {
    context?.setTransform(1, 0, 0, 1, 0, 0);
    context?.clearRect(0, 0, canvas.width, canvas.height);
    context?.setTransform(sharp, 0, 0, sharp, -origin.x * sharp, -origin.y * sharp);
  }

  function begin(): void {
    const frame = layer.getBoundingClientRect();
    sharp = window.devicePixelRatio || 1;
    origin = { x: Math.max(0, -frame.left), y: Math.max(0, -frame.top) };
    const width = Math.min(frame.width, window.innerWidth - frame.left) - origin.x;
    const height = Math.min(frame.height, window.innerHeight - frame.top) - origin.y;
    canvas.style.cssText = `left:${origin.x}px;top:${origin.y}px;width:${width}px;height:${height}px`;
    canvas.width = Math.max(1, Math.round(width * sharp));
    canvas.height = Math.max(1, Math.round(height * sharp));
    clear();
  }

  function draw(stroke: DrawnStroke, fresh: number): void {
    if (!context) return;
    const { tool, points, width } = stroke;
    context.strokeStyle = context.fillStyle = getComputedStyle(canvas).color;
    context.lineCap = context.lineJoin = 'round';
    context.globalAlpha = tool === 'highlighter' ? 0.32 : 1;
    if (tool === 'pen') return segments(points, Math.max(0, points.length - fresh - 1), width);
    clear();
    context.lineWidth = width;
    if (tool !== 'highlighter') return context.stroke(new Path2D(pathOf(stroke).d));
    context.beginPath();
    for (const { x, y } of points) context.lineTo(x, y);
    context.stroke();
  }

  function segments(points: readonly InkPoint[], from: number, width: number): void {
    for (let index = Math.max(1, from); index < points.length; index++) {
      const [before, now] = [points[index - 1]!, points[index]!];
      context!.beginPath();
      context!.lineWidth = width * Math.min(1.2, LEAST + MORE * now.pressure);
      context!.moveTo(before.x, before.y);
      context!.lineTo(now.x, now.y);
      context!.stroke();
    }
  }

  return { begin, draw, clear };
}
