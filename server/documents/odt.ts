import { canonicalText, countWords, titleOf } from '#core/folio';
import { documentErrors, type Reader } from './document.ts';
import { openOdf } from './odf.ts';
import { noteBlocks, odfBlocks } from './odf-text.ts';

/** Reads an OpenDocument text. */
export const readOdt: Reader = (bytes) => {
  const { body, title, context, pictures, unseen } = openOdf(bytes, 'odt', 'text', false);
  const text = odfBlocks(body, context);
  const blocks = [...text, ...noteBlocks(context)];
  if (countWords(canonicalText(blocks)) === 0 && pictures.length === 0) throw documentErrors.withoutText();
  for (const label of unseen) blocks.push({ type: 'picture', picture: context.standIn(label), alt: label });
  return {
    title: titleOf(blocks) ?? title,
    language: context.styles.language,
    leaves: [{ kind: 'text', label: 'Text', blocks }],
    pictures,
  };
};
