import { z } from 'zod';
import { primary, TranslationError, type Translator } from './translator.ts';

const Answer = z.object({ translatedText: z.string().max(100_000) });
const PATIENCE = 30_000;

/** A translation server of the school's own: `POST /translate` with text, source and target (common practice). */
export function translateServer(
  { address, key }: { address: string; key: string | undefined },
  patience = PATIENCE,
): Translator {
  const url = new URL('/translate', address);
  return {
    name: `Translation server at ${url.host}`,
    textGoesTo: 'another server',
    knows: () => true,
    async translate(text, source, target) {
      const body = { q: text, text, source: primary(source), target: primary(target), format: 'text', api_key: key };
      let response: Response;
      try {
        response = await fetch(url, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json', ...(key !== undefined && { Authorization: `Bearer ${key}` }) },
          body: JSON.stringify(body),
          redirect: 'error',
          signal: AbortSignal.timeout(patience),
        });
      } catch {
        throw new TranslationError(`The translation server at ${url.host} could not be reached. Try again later.`);
      }
      if (!response.ok)
        throw new TranslationError(`The translation server refused the words (HTTP ${response.status}).`);
      const answer = Answer.safeParse(await response.json().catch(() => undefined));
      if (!answer.success)
        throw new TranslationError('The translation server answered something that is no translation.');
      return answer.data.translatedText;
    },
  };
}
