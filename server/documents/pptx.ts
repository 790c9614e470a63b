import { textBlocks, type SlideLeaf, type TextBlock } from '#core/folio';
import type { Document, Element } from '@xmldom/xmldom';
import path from 'node:path/posix';
import { documentErrors, documentNotes, type DocumentPicture, type Reader } from './document.ts';
import { mathNode, mathText } from './math.ts';
import { pptxColors, type Colors } from './pptx-color.ts';
import { packagePictures } from './package-pictures.ts';
import { EMU_PER_POINT, type Part } from './pptx-part.ts';
import { pptxShapes, type SlideParts } from './pptx-shapes.ts';
import { paragraphsOf, type Equation } from './pptx-text.ts';
import { unseenLabels, unseenLeaves } from './unseen.ts';
import { attribute, child, children, descendants, numberOf, path as follow, readableXml } from './xml.ts';
import { openPackage, type Package } from './zip.ts';

/** English Metric Units to points: ECMA-376 Part 1, section 20.1.2.1. */
const MAX_SLIDES = 500;

/** Reads an Office Open XML presentation (ECMA-376 Part 1, section 19): each slide as the shapes that stand on it. */
export const readPptx: Reader = async (bytes) => {
  const files = openPackage(bytes, 'pptx');
  const presentation = mainPart(files);
  const size = child(presentation.root, 'sldSz');
  const [width, height] = [
    (numberOf(size, 'cx') ?? 9_144_000) / EMU_PER_POINT,
    (numberOf(size, 'cy') ?? 6_858_000) / EMU_PER_POINT,
  ];
  const ids = children(child(presentation.root, 'sldIdLst'), 'sldId').map((one) => attribute(one, 'r:id') ?? '');
  if (ids.length > MAX_SLIDES) throw documentErrors.tooManyPages();
  const equation = await equationsOf(files, presentation);
  const pictures: DocumentPicture[] = [];
  const picture = packagePictures(files, pictures);
  const unreadable: string[] = [];
  let comments = 0;
  const leaves = ids.flatMap((id, index): SlideLeaf[] => {
    const leaf = { kind: 'slide' as const, label: `Slide ${index + 1}`, width, height };
    const target = presentation.targets.get(id);
    const parts = target && slideParts(files, target.name, presentation, equation);
    if (!parts) {
      unreadable.push(leaf.label);
      return [{ ...leaf, shapes: [unreadableShape(width, height)], notes: [] }];
    }
    if (attribute(parts.slide.root, 'show') === '0') return [];
    comments += commentsOn(files, parts.slide);
    return [
      { ...leaf, background: background(parts), shapes: pptxShapes(parts, picture), notes: notesOf(files, parts) },
    ];
  });
  if (unreadable.length > 0 && unreadable.length === leaves.length) throw documentErrors.broken('pptx');
  if (leaves.length === 0) throw documentErrors.withoutText();
  const notes = unreadable.length > 0 ? [documentNotes.unreadable(unreadable)] : [];
  return {
    title: titleOf(leaves),
    language: languageOf(files, presentation),
    leaves: [...leaves, ...unseenLeaves(unseenLabels({ comments, changes: 0 }), pictures)],
    pictures,
    notes,
  };
};

/** Of the older kind (ECMA-376 Part 1, section 19.4) and of the newer one, which has answers in it. */
const commentsOn = (files: Package, slide: Part): number =>
  [...slide.targets.values()]
    .filter(({ type }) => type.endsWith('/comments'))
    .flatMap(({ name }) => ['cm', 'reply'].flatMap((element) => descendants(openPart(files, name)?.root, element)))
    .length;

function mainPart(files: Package): Part {
  const relation = [...partsOf(files, '').values()].find(({ type }) => type.endsWith('/officeDocument'));
  const part = openPart(files, relation?.name ?? 'ppt/presentation.xml');
  if (!part) throw documentErrors.broken('pptx');
  return part;
}

/** One part; undefined where it is missing or broken, which the rest is shown without. */
export function openPart(files: Package, name: string): Part | undefined {
  const root = readableXml(files.text(name), 'pptx')?.documentElement;
  return root ? { name, root, targets: partsOf(files, name) } : undefined;
}

/** What stands in the place of a slide that cannot be read. */
const unreadableShape = (width: number, height: number): SlideLeaf['shapes'][number] => ({
  ...{ geometry: 'none', x: width / 10, y: height / 3, width: (width * 8) / 10, height: height / 3 },
  blocks: [{ type: 'paragraph', runs: [{ text: 'This slide could not be read.', marks: [] }] }],
});

/** Relationships of a part (ECMA-376 Part 2, section 6.5), those of the whole package for the empty name. */
function partsOf(files: Package, name: string): Part['targets'] {
  const folder = path.dirname(name);
  const relations = readableXml(files.text(path.join(folder, '_rels', `${path.basename(name)}.rels`)), 'pptx');
  return new Map(
    descendants(relations, 'Relationship').map((relation) => {
      const target = attribute(relation, 'Target') ?? '';
      const external = attribute(relation, 'TargetMode') === 'External';
      const there = external ? target : target.startsWith('/') ? target.slice(1) : path.join(folder, target);
      return [attribute(relation, 'Id') ?? '', { type: attribute(relation, 'Type') ?? '', name: there, external }];
    }),
  );
}

/** What reads equations loads for a third of a second, and few presentations have any. */
async function equationsOf(files: Package, { targets }: Part): Promise<Equation | undefined> {
  const slides = [...targets.values()].filter(({ type }) => type.endsWith('/slide'));
  if (!slides.some(({ name }) => files.text(name)?.includes(':oMath'))) return undefined;
  const { default: omml2mathml } = await import('omml2mathml');
  return (element) => {
    const math = mathNode(omml2mathml(element) as never);
    return { text: mathText(math), marks: [], math };
  };
}

function slideParts(
  files: Package,
  name: string,
  presentation: Part,
  equation: Equation | undefined,
): SlideParts | undefined {
  const slide = openPart(files, name);
  if (!slide) return undefined;
  const layout = related(files, slide, 'slideLayout');
  const master = layout && related(files, layout, 'slideMaster');
  const theme = master && related(files, master, 'theme');
  const colors = pptxColors(theme?.root, master?.root, slide.root);
  const relatedTo = (relation: string): Document | undefined =>
    readableXml(files.text(slide.targets.get(relation)?.name ?? ''), 'pptx');
  const tableStyles = related(files, presentation, 'tableStyles')?.root;
  return { slide, layout, master, presentation, colors, tableStyles, equation, related: relatedTo };
}

function related(files: Package, part: Part, type: string): Part | undefined {
  const target = [...part.targets.values()].find((one) => one.type.endsWith(`/${type}`));
  return target && openPart(files, target.name);
}

function background({ slide, layout, master, colors }: SlideParts): string | undefined {
  for (const part of [slide, layout, master]) {
    const own = follow(part?.root, 'cSld', 'bg');
    if (own) return backgroundColor(own, colors);
  }
  return undefined;
}

function backgroundColor(own: Element, colors: Colors): string | undefined {
  const properties = child(own, 'bgPr');
  return properties ? colors.fill(properties) : colors.color(child(own, 'bgRef'));
}

/** What stands on a page of notes besides the notes. */
const NOT_NOTES = ['sldImg', 'sldNum', 'dt', 'hdr', 'ftr'];

function notesOf(files: Package, parts: SlideParts): TextBlock[] {
  const notes = related(files, parts.slide, 'notesSlide');
  const named = [...parts.slide.targets.values()].some(({ type }) => type.endsWith('/notesSlide'));
  if (named && !notes) return [{ type: 'paragraph', runs: [{ text: 'These notes could not be read.', marks: [] }] }];
  return descendants(notes?.root, 'sp')
    .filter((shape) => !NOT_NOTES.includes(attribute(follow(shape, 'nvSpPr', 'nvPr', 'ph'), 'type') ?? ''))
    .flatMap((shape) =>
      paragraphsOf(child(shape, 'txBody'), {
        styles: [],
        colors: parts.colors,
        targets: notes?.targets ?? new Map(),
        title: false,
      }),
    )
    .filter(({ runs }) => runs.some(({ text }) => text.trim() !== ''))
    .map((block) => ({ ...block, runs: block.runs.map(({ look: _, ...run }) => run) }));
}

function titleOf(leaves: SlideLeaf[]): string | undefined {
  const blocks = leaves.flatMap(({ shapes }) => textBlocks(shapes.flatMap((shape) => shape.blocks)));
  const heading = blocks.find(({ type }) => type === 'heading');
  return (
    heading?.runs
      .map(({ text }) => text)
      .join('')
      .replace(/\s+/g, ' ')
      .trim() || undefined
  );
}

function languageOf(files: Package, presentation: Part): string | undefined {
  for (const { type, name } of presentation.targets.values()) {
    if (!type.endsWith('/slide')) continue;
    const runs = descendants(openPart(files, name)?.root, 'rPr');
    const language = runs.map((run) => attribute(run, 'lang')).find((lang) => lang !== undefined);
    if (language) return language;
  }
  return undefined;
}
