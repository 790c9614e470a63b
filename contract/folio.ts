import type {
  Folio as CoreFolio,
  Leaf as CoreLeaf,
  MathNode as CoreMathNode,
  Run as CoreRun,
  Shape as CoreShape,
  TextBlock as CoreTextBlock,
} from '#core/folio';
import { z } from 'zod';

const Mark = z.enum(['bold', 'italic', 'underline', 'strike', 'superscript', 'subscript', 'code']);
const Link = z.string().regex(/^(https?:|mailto:)/i);
const Color = z.string().regex(/^#[0-9a-f]{6}$/);
const Offset = z.int().min(0);
const Points = z.number();

/** Elements of MathML Core that only draw: none of them can run, load or link. */
export const MATH_ELEMENTS = [
  'math',
  'mrow',
  'mi',
  'mn',
  'mo',
  'ms',
  'mtext',
  'mspace',
  'mfrac',
  'msqrt',
  'mroot',
  'msub',
  'msup',
  'msubsup',
  'munder',
  'mover',
  'munderover',
  'mmultiscripts',
  'mprescripts',
  'mtable',
  'mtr',
  'mtd',
  'mpadded',
  'mphantom',
  'mstyle',
  'none',
] as const;
export const MATH_ATTRIBUTES = [
  'mathvariant',
  'stretchy',
  'accent',
  'accentunder',
  'linethickness',
  'display',
] as const;

const MathNode: z.ZodType<CoreMathNode> = z.lazy(() =>
  z.object({
    element: z.enum(MATH_ELEMENTS),
    attributes: z.record(z.string(), z.string()).optional(),
    children: z.array(z.union([z.string(), MathNode])),
  }),
);

const Run = z.object({
  text: z.string(),
  marks: z.array(Mark),
  link: Link.optional(),
  note: z.string().optional(),
  math: MathNode.optional(),
  look: z.object({ size: Points.optional(), color: Color.optional() }).optional(),
}) satisfies z.ZodType<CoreRun>;
const runs = z.array(Run);
const setting = {
  role: z.enum(['quotation', 'caption']).optional(),
  align: z.enum(['left', 'center', 'right']).optional(),
  direction: z.literal('rtl').optional(),
};

const TextBlock = z.discriminatedUnion('type', [
  z.object({
    type: z.literal('heading'),
    level: z.int().min(1).max(6),
    runs,
    marker: z.string().optional(),
    ...setting,
  }),
  z.object({ type: z.literal('paragraph'), runs, ...setting }),
  z.object({ type: z.literal('item'), depth: z.int().min(0), marker: z.string(), runs, ...setting }),
]) satisfies z.ZodType<CoreTextBlock>;

const Span = z.int().min(1).max(1000).optional();

const Block = z.union([
  TextBlock,
  z.object({
    type: z.literal('table'),
    widths: z.array(z.number()).optional(),
    rows: z.array(
      z.array(
        z.object({
          header: z.boolean(),
          fill: Color.optional(),
          columns: Span,
          rows: Span,
          blocks: z.array(TextBlock),
        }),
      ),
    ),
  }),
  z.object({ type: z.literal('picture'), picture: z.int().min(0), alt: z.string() }),
]);

const box = { x: Points, y: Points, width: Points, height: Points };

const Shape = z.object({
  ...box,
  geometry: z.enum(['none', 'rectangle', 'rounded', 'ellipse', 'triangle', 'diamond', 'arrow', 'line']),
  rotation: z.number().optional(),
  flipped: z.object({ horizontal: z.boolean(), vertical: z.boolean() }).optional(),
  fill: Color.optional(),
  line: z.object({ color: Color, width: Points }).optional(),
  picture: z.int().min(0).optional(),
  crop: z.tuple([z.number(), z.number(), z.number(), z.number()]).optional(),
  alt: z.string().optional(),
  fit: z.boolean().optional(),
  align: z.enum(['top', 'middle', 'bottom']).optional(),
  inset: z.tuple([Points, Points, Points, Points]).optional(),
  blocks: z.array(Block),
}) satisfies z.ZodType<CoreShape>;

const place = { label: z.string(), file: z.int().min(0), start: Offset, end: Offset };
const size = { width: z.number().positive(), height: z.number().positive() };

export const Leaf = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('text'), ...place, blocks: z.array(Block) }),
  z.object({
    kind: z.literal('page'),
    ...place,
    ...size,
    page: z.int().min(1),
    texts: z.array(z.object({ ...box, text: z.string(), glue: z.enum(['', ' ', '\n']), angle: z.number().optional() })),
  }),
  z.object({
    kind: z.literal('slide'),
    ...place,
    ...size,
    background: Color.optional(),
    shapes: z.array(Shape),
    notes: z.array(TextBlock),
  }),
  z.object({ kind: z.literal('picture'), ...place, ...size, picture: z.int().min(0) }),
  z.object({ kind: z.literal('sound'), ...place, duration: z.number().positive().nullable(), video: z.boolean() }),
  z.object({
    kind: z.literal('sheet'),
    ...place,
    rows: z.array(z.array(z.object({ text: z.string(), formula: z.string().optional(), columns: Span, rows: Span }))),
  }),
  z.object({
    kind: z.literal('answer'),
    ...place,
    question: z.uuid(),
    prompt: z.string(),
    blocks: z.array(TextBlock),
  }),
]) satisfies z.ZodType<CoreLeaf>;

/** Of what is handed in, or typed here. */
export const Format = z.enum([
  'docx',
  'odt',
  'pdf',
  'pptx',
  'odp',
  'markdown',
  'text',
  'html',
  'epub',
  'png',
  'jpeg',
  'webp',
  'gif',
  'tiff',
  'heic',
  'wav',
  'mp3',
  'ogg',
  'webm',
  'mp4',
  'flac',
  'aac',
  'csv',
  'xlsx',
  'ods',
  'answers',
]);
/** What comes as a file. */
export const FileFormat = Format.exclude(['answers']);

export const Folio = z.object({
  title: z.string(),
  language: z.string().optional(),
  files: z.array(z.object({ name: z.string(), format: Format })),
  text: z.string(),
  leaves: z.array(Leaf),
}) satisfies z.ZodType<CoreFolio>;
