import path from 'node:path';
import { z } from 'zod';
import type { MailSettings } from './mail/mailer.ts';
import { ROOT } from './root.ts';

const Environment = z.object({
  PORT: z.coerce.number().int().min(0).max(65_535).default(4174),
  HOST: z.string().default('127.0.0.1'),
  VIVID_HOSTS: z.string().default(''),
  DATABASE_URL: z.string().optional(),
  VIVID_DATA: z.string().default(path.join(ROOT, 'data')),
  VIVID_CACHE: z.string().default(path.join(ROOT, '.cache')),
  VIVID_MAX_FILE_MB: z.coerce.number().positive().max(200).default(25),
  VIVID_MAX_DAY_MB: z.coerce.number().positive().default(2000),
  VIVID_DICTATION: z.stringbool().default(true),
  VIVID_RECOGNITION: z.stringbool().default(true),
  VIVID_SPEECH_SERVER: z.url({ protocol: /^https?$/ }).optional(),
  VIVID_SPEECH_KEY: z.string().min(1).optional(),
  VIVID_SPEECH_MODEL: z.string().min(1).default('default'),
  VIVID_TRANSLATE_SERVER: z.url({ protocol: /^https?$/ }).optional(),
  VIVID_TRANSLATE_KEY: z.string().min(1).optional(),
  VIVID_ADDRESS: z.url({ protocol: /^https?$/ }).optional(),
  VIVID_MAIL_SERVER: z.url({ protocol: /^smtps?$/ }).optional(),
  VIVID_MAIL_FROM: z.string().min(3).default('Vivid Margin <vivid-margin@localhost>'),
  VIVID_PRIVATE_PLATFORMS: z.stringbool().default(false),
  VIVID_SECURE_COOKIES: z.stringbool().default(false),
  VIVID_TRUST_PROXY: z.stringbool().default(false),
});

export interface SpeechServerSettings {
  /** Up to `/v1`, without it, e.g. `https://speech.example.org`. */
  address: string;
  key?: string | undefined;
  model: string;
}

export interface Settings {
  port: number;
  host: string;
  /** Further names under which people reach this server, e.g. that of a proxy. */
  hosts: string[];
  databaseUrl: string | undefined;
  dataFolder: string;
  cacheFolder: string;
  webFolder: string;
  maxFileBytes: number;
  /** What one person may send within a day. */
  maxDayBytes: number;
  /** Whether an engine on this machine writes recordings down, where one is installed. */
  dictation: boolean;
  /** Whether words in scanned pages are read, where Tesseract is installed. */
  recognition: boolean;
  /** A speech server of the school's own, and a translation server. */
  speechServer: SpeechServerSettings | undefined;
  translateServer: { address: string; key: string | undefined } | undefined;
  /** Under which people reach the app, for mail; where none is set, the one that whoever asks has come by. */
  address: string | undefined;
  mail: MailSettings;
  /** Learning platforms may be within the school's own network. */
  privatePlatforms: boolean;
  secureCookies: boolean;
  trustProxy: boolean;
}

/**
 * Reads the settings from the environment.
 * @throws z.ZodError naming the variable that is wrong
 */
export function readSettings(environment: NodeJS.ProcessEnv): Settings {
  const values = Environment.parse(environment);
  return {
    port: values.PORT,
    host: values.HOST,
    hosts: values.VIVID_HOSTS.split(/[\s,]+/u).filter((name) => name !== ''),
    databaseUrl: values.DATABASE_URL,
    dataFolder: path.resolve(values.VIVID_DATA),
    cacheFolder: path.resolve(values.VIVID_CACHE),
    webFolder: path.join(ROOT, 'dist', 'web'),
    maxFileBytes: Math.floor(values.VIVID_MAX_FILE_MB * 1024 * 1024),
    maxDayBytes: Math.floor(values.VIVID_MAX_DAY_MB * 1024 * 1024),
    dictation: values.VIVID_DICTATION,
    recognition: values.VIVID_RECOGNITION,
    speechServer: values.VIVID_SPEECH_SERVER
      ? { address: values.VIVID_SPEECH_SERVER, key: values.VIVID_SPEECH_KEY, model: values.VIVID_SPEECH_MODEL }
      : undefined,
    translateServer: values.VIVID_TRANSLATE_SERVER
      ? { address: values.VIVID_TRANSLATE_SERVER, key: values.VIVID_TRANSLATE_KEY }
      : undefined,
    address: values.VIVID_ADDRESS,
    mail: { server: values.VIVID_MAIL_SERVER, from: values.VIVID_MAIL_FROM },
    privatePlatforms: values.VIVID_PRIVATE_PLATFORMS,
    secureCookies: values.VIVID_SECURE_COOKIES,
    trustProxy: values.VIVID_TRUST_PROXY,
  };
}
