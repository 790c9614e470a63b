import { Command, InvalidArgumentError, Option } from 'commander';
import { z } from 'zod';
import type { AddPersonOptions } from './add-person.ts';
import type { ServeOptions } from './serve.ts';

const print = (value: unknown): void => {
  process.stdout.write(`${JSON.stringify(value, null, 2)}\n`);
};

function port(value: string): number {
  const parsed = z.coerce.number().int().min(0).max(65_535).safeParse(value);
  if (!parsed.success) throw new InvalidArgumentError('A port is a whole number from 0 to 65535.');
  return parsed.data;
}

// Each command loads what it needs, so that a small one is quick.
const program = new Command('vivid').description('Vivid Margin on the command line').configureOutput({
  outputError: (text, write) => write(text.trim().split('\n')[0] + '\n'),
});

program
  .command('read')
  .argument('<file>', 'a document, e.g. essay.docx')
  .description('print the folio of a document as JSON')
  .action(async (file: string) => print(await (await import('./read.ts')).read(file)));

program
  .command('reattach')
  .argument('<old>', 'a document')
  .argument('<new>', 'its next version')
  .argument('<anchors>', 'a JSON file: [{"id", "start", "end", "exact", "prefix", "suffix"}], offsets in UTF-16 units')
  .description('print where each anchor of the old document belongs in the new one')
  .action(async (old: string, next: string, anchors: string) =>
    print(await (await import('./reattach.ts')).reattach(old, next, anchors)),
  );

program
  .command('annotations')
  .argument('<submission>', 'the identifier of a work')
  .option('--import <file>', 'read annotations back as remarks, all or none')
  .option('--sounds <folder>', 'write the recordings to a folder, or with --import read them from it')
  .description('print the remarks on a work as W3C Web Annotations (JSON-LD)')
  .action(async (submission: string, options: { import?: string; sounds?: string }) =>
    print(await (await import('./annotations.ts')).annotations(submission, options)),
  );

program
  .command('loudness')
  .argument('<file>', 'a WAV file')
  .description('print how loud a recording is: LUFS, dBTP, LU (EBU R 128) and seconds')
  .action(async (file: string) => print(await (await import('./loudness.ts')).loudness(file)));

program
  .command('transcribe')
  .argument('<file>', 'a recording: WAV, or Opus in WebM, Ogg or MP4')
  .option('--language <tag>', 'what is spoken, e.g. en', 'en')
  .description('print the words of a recording with their times in seconds')
  .action(async (file: string, options: { language: string }) =>
    print(await (await import('./speech.ts')).transcribe(file, options)),
  );

program
  .command('align')
  .argument('<file>', 'a recording')
  .argument('<textfile>', 'what is said in it')
  .option('--language <tag>', 'what is spoken, e.g. en', 'en')
  .description('print when each word of a known text is said')
  .action(async (file: string, text: string, options: { language: string }) =>
    print(await (await import('./speech.ts')).align(file, text, options)),
  );

program
  .command('captions')
  .argument('<file>', 'JSON with words, as transcribe and align print it')
  .addOption(new Option('--format <format>').choices(['vtt', 'srt']).default('vtt'))
  .description('print captions: WebVTT or SubRip')
  .action(async (file: string, { format }: { format: 'vtt' | 'srt' }) => {
    process.stdout.write(await (await import('./speech.ts')).captions(file, format));
  });

program
  .command('wer')
  .argument('<reference>', 'a text file: what was said')
  .argument('<hypothesis>', 'a text file: what was heard')
  .description('print the word error rate')
  .action(async (reference: string, hypothesis: string) =>
    print(await (await import('./speech.ts')).wer(reference, hypothesis)),
  );

program
  .command('speech-stand-in')
  .option('--port <number>', 'where to listen', port, 4175)
  .description('run a small stand-in for a speech server, for trying the settings')
  .action(async (options: { port: number }) => (await import('./speech-stand-in.ts')).speechStandIn(options));

program
  .command('suggest')
  .argument('<bank>', 'a JSON file: {"remarks": [...], "history": [...]}')
  .argument('<passages>', 'a JSON file: [{"id", "kind", "criterion", "before", "passage", "after"}]')
  .description('print which banked remarks are suggested for each passage, the best first')
  .action(async (bank: string, passages: string) => print(await (await import('./bank.ts')).suggest(bank, passages)));

program
  .command('find')
  .argument('<bank>', 'a JSON file, as for suggest')
  .argument('<queries>', 'a JSON file: [{"query"}]')
  .description('print which banked remarks each query finds, the best first')
  .action(async (bank: string, queries: string) => print(await (await import('./bank.ts')).find(bank, queries)));

program
  .command('alike')
  .argument('<texts>', 'a JSON file: a list of texts')
  .option('--language <tag>', 'what they are written in', 'en')
  .description('print which texts say nearly the same, as groups of their positions from 0')
  .action(async (texts: string, { language }: { language: string }) =>
    print(await (await import('./bank.ts')).alike(texts, language)),
  );

program
  .command('grade')
  .argument('<case>', 'a JSON file; docs/grade.md says what is in it')
  .description('print what the scores of a work come to, and the arithmetic of it')
  .action(async (file: string) => print(await (await import('./grade.ts')).grade(file)));

program
  .command('statistics')
  .argument('[numbers]', 'a file with a number a line; standard input where there is none', '-')
  .description('print {n, mean, median, q1, q3, sd, min, max}: quartiles by Hyndman & Fan type 7, sd of a sample')
  .action(async (file: string) => print(await (await import('./numbers.ts')).statistics(file)));

program
  .command('agreement')
  .argument('<ratings>', 'a CSV file: a row a unit, a column a rater, whole numbers, empty where not rated')
  .description(
    'print {units, raters, exact, adjacent, kappa, alpha}: per cent the same and at most one apart, Cohen’s kappa with quadratic weights, Krippendorff’s alpha for ordered ratings',
  )
  .action(async (file: string) => print(await (await import('./numbers.ts')).agreement(file)));

program
  .command('split')
  .argument('<take>', 'a JSON file; docs/split.md says what is in it')
  .description('print where a take that went through several passages becomes several remarks')
  .action(async (file: string) => print(await (await import('./split.ts')).split(file)));

program
  .command('serve')
  .description('start the server')
  .option('--port <number>', 'where to listen', port)
  .option('--sample', 'fill an empty database with the sample school')
  .option('--fresh', 'with --sample: start over')
  .action(async (options: ServeOptions) => (await import('./serve.ts')).serve(options));

program
  .command('add-person')
  .description('add a teacher or a student; the password is read from standard input')
  .requiredOption('--name <name>')
  .requiredOption('--login <login>')
  .option('--teaches <course>', 'title of a course; made if there is none')
  .option('--learns <course>', 'title of a course; made if there is none')
  .action(async (options: AddPersonOptions) =>
    print(await (await import('./add-person.ts')).addPersonCommand(options)),
  );

program
  .command('bench')
  .argument(
    '[subjects...]',
    'what to measure: app, bank, crowd, desk, documents, margin, queue, reattach, speech, voice; everything where none is named',
  )
  .description('measure, and print the figures as JSON')
  .action(async (subjects: string[]) => print(await (await import('../scripts/bench/index.ts')).bench(subjects)));

/** One line that a person understands; a wrong setting is named. */
function sentenceOf(error: unknown): string {
  if (error instanceof z.ZodError)
    return error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`).join('; ');
  const { code, path, message } = error as NodeJS.ErrnoException;
  if (code === 'ENOENT' && path) return `There is no file ${path}.`;
  if (code === 'EISDIR') return 'This is a folder, not a file.';
  return message.split('\n')[0]!;
}

try {
  await program.parseAsync();
} catch (error) {
  process.stderr.write(`${sentenceOf(error)}\n`);
  process.exitCode = 1;
}
