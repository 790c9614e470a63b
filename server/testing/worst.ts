import { strToU8, zipSync } from 'fflate';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { z } from 'zod';
import type { Endpoint } from '../../contract/endpoint.ts';
import { pathOf } from '../../contract/endpoint.ts';
import type { Client } from './client.ts';

/** What made a pattern of ours, or of a package, take long at some time, and what is built like it. */
export const REPEATED = [
  ...[
    '"',
    "'",
    '<',
    '<a',
    '<!--',
    '&',
    '&amp;',
    '&#',
    'a@',
    '@a.',
    'a.',
    '(',
    '[',
    '[[',
    '![',
    '{',
    '{{',
    '\\',
    '`',
    '```\n',
  ],
  ...[
    '*',
    '_',
    '*_',
    '~',
    '#',
    '> ',
    '- ',
    '|',
    '|-',
    ',',
    ';',
    ':',
    '/',
    'http://',
    'a ',
    ' ',
    '\t',
    '\n',
    '\r',
    '\n\n',
  ],
  ...['0', '0,', '1.', '-', '$', '$$', '=', '=(', '%', '\u00a0', '\u200b', '\u0301', 'ﷺ', 'א', '日', '😀', '\u0000'],
  ...[
    '00:00:00.000 --> ',
    '00:00:00.000 --> 00:00:01.000\na\n\n',
    '<p>',
    '<b',
    '</',
    '<table>',
    '"\n',
    '""',
    '","',
    'a;"b',
    'A, B\n',
  ],
] as const;

/** The repetition, ending in a character that makes a pattern fail to match. */
const repeated = (what: string, length: number): string =>
  `${what.repeat(Math.ceil(length / what.length)).slice(0, length - 1)}!`;

interface Schema {
  type?: string;
  anyOf?: Schema[];
  oneOf?: Schema[];
  allOf?: Schema[];
  enum?: unknown[];
  const?: unknown;
  properties?: Record<string, Schema>;
  required?: string[];
  items?: Schema;
  minItems?: number;
  prefixItems?: Schema[];
  format?: string;
  pattern?: string;
  maxLength?: number;
  minimum?: number;
}

/** A value that fits a schema, as far as it can be told, with the same text wherever it takes any. */
function sample(schema: Schema, text: (longest: number) => string, id: string): unknown {
  if (schema.const !== undefined) return schema.const;
  if (schema.enum) return schema.enum[0];
  const one = schema.anyOf ?? schema.oneOf;
  if (one) return sample(one[0]!, text, id);
  if (schema.allOf) return Object.assign({}, ...schema.allOf.map((part) => sample(part, text, id)));
  switch (schema.type) {
    case 'string':
      if (schema.format === 'uuid') return id;
      if (schema.format === 'date-time') return '2026-12-01T00:00:00Z';
      return schema.pattern ? 'en' : text(schema.maxLength ?? Infinity);
    case 'number':
    case 'integer':
      return Math.max(1, schema.minimum ?? 1);
    case 'boolean':
      return true;
    case 'array':
      return schema.prefixItems
        ? schema.prefixItems.map((item) => sample(item, text, id))
        : [sample(schema.items ?? {}, text, id)];
    case 'object':
      return Object.fromEntries(
        Object.entries(schema.properties ?? {}).map(([key, value]) => [key, sample(value, text, id)]),
      );
    default:
      return null;
  }
}

/** How long the longest text is that some field of a body takes. */
export function longestText({ body }: Endpoint): number {
  let longest = 0;
  if (body) sample(schemaOf(body), (most) => ((longest = Math.max(longest, most)), 'a'), '');
  return longest;
}

const schemaOf = (body: z.ZodType): Schema => z.toJSONSchema(body, { io: 'input', unrepresentable: 'any' }) as Schema;

/** What came of asking. */
export interface Asked {
  what: string;
  repeated: string;
  status: number;
  megabytes: number;
  seconds: number;
  /** The longest for which the server, which runs in this process, answered nobody. */
  blocked: number;
}

interface Ask {
  client: Client;
  endpoint: Endpoint;
  ids: Record<string, string>;
  what: string;
  bytes: number;
}

/** Asks an endpoint with a text of so many bytes in each field that takes as many. */
export function askWithText({ endpoint, what, bytes, ...ask }: Ask): Promise<Asked> {
  const text = (most: number): string => repeated(what, Math.min(most, bytes));
  const body = sample(schemaOf(endpoint.body!), text, ask.ids.criterion!);
  return timed({ endpoint, what, bytes: JSON.stringify(body).length, ...ask }, { body });
}

/** What a file can be called that holds the text; a class list of another system is made of several. */
export const FILES: Record<string, (text: string) => Buffer> = {
  'a.txt': (text) => Buffer.from(text),
  'a.md': (text) => Buffer.from(text),
  'a.html': (text) => Buffer.from(`<html>${text}`),
  'a.csv': (text) => Buffer.from(text),
  'a.json': (text) => Buffer.from(text),
  'a.rtf': (text) => Buffer.from(`{\\rtf1 ${text}`),
  'quoted.csv': (text) => Buffer.from(`Name,Mail\n"${text.replaceAll('"', '""')}",x\n`),
  'a.zip': (text) =>
    Buffer.from(
      zipSync({
        'manifest.csv': strToU8('propertyName,value\noneroster.version,1.2\n'),
        'users.csv': strToU8(`sourcedId,givenName,familyName\n1,"${text.replaceAll('"', '""')}",B\n`),
        'classes.csv': strToU8(`sourcedId,title\n1,"${text.replaceAll('"', '""')}"\n`),
        'enrollments.csv': strToU8('sourcedId,classSourcedId,userSourcedId,role\n1,1,1,student\n'),
        'bagit.txt': strToU8(text),
        'remarks.csv': strToU8(text),
      }),
    ),
};

/** Gives an endpoint a file that holds the text. */
export function askWithFile({ endpoint, what, bytes, ...ask }: Ask, name: string): Promise<Asked> {
  const file = FILES[name]!(repeated(what, bytes));
  const body = endpoint.body && sample(schemaOf(endpoint.body), () => '', ask.ids.student!);
  return timed({ endpoint, what, bytes: Math.max(file.length, bytes), ...ask }, { body, files: { [name]: file } });
}

async function timed(
  { client, endpoint: { method, path }, ids, what, bytes }: Ask,
  request: Parameters<Client['send']>[2],
): Promise<Asked> {
  const delay = monitorEventLoopDelay({ resolution: 5 });
  delay.enable();
  const start = performance.now();
  const { status } = await client.send(method, pathOf(path, { ...ids, ...missing(path, ids) }), request);
  const seconds = (performance.now() - start) / 1000;
  await new Promise(setImmediate);
  delay.disable();
  const file = Object.keys(request?.files ?? {})[0];
  return {
    what: `${method} ${path}${file ? ` ${file}` : ''}`,
    ...{ repeated: what, status, megabytes: bytes / 1e6, seconds, blocked: delay.max / 1e9 },
  };
}

const missing = (path: string, ids: Record<string, string>): Record<string, string> =>
  Object.fromEntries([...path.matchAll(/:(\w+)/g)].map(([, name]) => [name!, ids[name!] ?? 'none']));
