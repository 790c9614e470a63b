import { execFileSync, spawn } from 'node:child_process';
import { installed } from '../speech/installed.ts';
import { primary, TranslationError, type Translator } from './translator.ts';

export const HOW_TO_GET_APERTIUM = 'apt-get install apertium apertium-eng-spa (or another pair of languages)';

const PATIENCE = 20_000;

/** ISO 639-3 codes, which the names of newer pairs have. */
const LONG: Record<string, string> = {
  af: 'afr', an: 'arg', be: 'bel', ca: 'cat', da: 'dan', en: 'eng', es: 'spa', fr: 'fra', gl: 'glg', hi: 'hin', id: 'ind',
  is: 'isl', it: 'ita', mk: 'mkd', nb: 'nob', nl: 'nld', nn: 'nno', oc: 'oci', pl: 'pol', pt: 'por', ro: 'ron', ru: 'rus',
  sc: 'srd', sl: 'slv', sr: 'hbs', sv: 'swe', uk: 'ukr',
}; // prettier-ignore

/** Rule-based translation on this machine, where Debian's packages are installed; undefined where they are not. */
export function apertium(program = installed('apertium')): Translator | undefined {
  const modes = program && modesOf(program);
  if (!program || !modes || modes.size === 0) return undefined;
  const modeFor = (source: string, target: string): string | undefined =>
    names(source)
      .flatMap((from) => names(target).map((to) => `${from}-${to}`))
      .find((mode) => modes.has(mode));
  return {
    name: 'Apertium',
    textGoesTo: 'this server',
    knows: (source, target) => modeFor(source, target) !== undefined,
    translate: (text, source, target) => run(program, modeFor(source, target)!, text),
  };
}

const names = (language: string): string[] => [primary(language), LONG[primary(language)] ?? primary(language)];

function modesOf(program: string): Set<string> {
  try {
    return new Set(execFileSync(program, ['-l'], { encoding: 'utf8', timeout: 10_000 }).split(/\s+/u).filter(Boolean));
  } catch {
    return new Set();
  }
}

/** Its script opens /dev/stdin by name, which cannot be done with the socket that Node gives a child. */
const THROUGH_A_PIPE = 'cat | "$0" -u "$1"';

function run(program: string, mode: string, text: string): Promise<string> {
  return new Promise((done, failed) => {
    const child = spawn('/bin/sh', ['-c', THROUGH_A_PIPE, program, mode], {
      stdio: ['pipe', 'pipe', 'ignore'],
      timeout: PATIENCE,
    });
    let output = '';
    child.stdout.setEncoding('utf8').on('data', (chunk: string) => (output += chunk));
    child.on('error', () => failed(new TranslationError('Apertium could not be started.')));
    child.on('close', (code) =>
      code === 0 ? done(output.trim()) : failed(new TranslationError('Apertium stopped unexpectedly.')),
    );
    child.stdin.on('error', () => undefined);
    child.stdin.end(text);
  });
}
