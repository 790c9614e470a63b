import { Command, InvalidArgumentError } from 'commander';
import { z } from 'zod';
import { addPersonCommand } from './add-person.ts';
import { read } from './read.ts';
import { serve } from './serve.ts';

const print = (value: unknown): void => {
  process.stdout.write(`${JSON.stringify(value, null, 2)}\n`);
};

function port(value: string): number {
  const parsed = z.coerce.number().int().min(0).max(65_535).safeParse(value);
  if (!parsed.success) throw new InvalidArgumentError('A port is a whole number from 0 to 65535.');
  return parsed.data;
}

const program = new Command('vivid').description('Vivid Margin on the command line').configureOutput({
  outputError: (text, write) => write(text.trim().split('\n')[0] + '\n'),
});

program
  .command('read')
  .argument('<file>', 'a document, e.g. essay.docx')
  .description('print the folio of a document as JSON')
  .action(async (file: string) => print(await read(file)));

program
  .command('serve')
  .description('start the server')
  .option('--port <number>', 'where to listen', port)
  .option('--sample', 'fill an empty database with the sample school')
  .option('--fresh', 'with --sample: start over')
  .action(serve);

program
  .command('add-person')
  .description('add a teacher or a student; the password is read from standard input')
  .requiredOption('--name <name>')
  .requiredOption('--login <login>')
  .option('--teaches <course>', 'title of a course; made if there is none')
  .option('--learns <course>', 'title of a course; made if there is none')
  .action(async (options: Parameters<typeof addPersonCommand>[0]) => print(await addPersonCommand(options)));

program
  .command('bench')
  .description('measure, and print the figures as JSON')
  .action(async () => print(await (await import('../scripts/bench.ts')).bench()));

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
