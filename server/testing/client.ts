import { COOKIE } from '../http/person-of.ts';

export interface TestAnswer {
  status: number;
  headers: Headers;
  text: string;
  json: unknown;
}

export interface TestRequest {
  body?: unknown;
  file?: Buffer;
  fileName?: string;
  /** Where several go along, by their names. */
  files?: Record<string, Buffer>;
  headers?: Record<string, string>;
}

/** A browser without a screen: keeps its cookie, speaks JSON and forms. */
export class Client {
  readonly #address: string;
  #cookie: string;

  /** @param token of a session; nobody is signed in without one */
  constructor(address: string, token?: string) {
    this.#address = address;
    this.#cookie = token ? `${COOKIE}=${token}` : '';
  }

  fetch(path: string, headers: Record<string, string> = {}): Promise<Response> {
    return fetch(`${this.#address}/api${path}`, { headers: { ...headers, Cookie: this.#cookie } });
  }

  async send(
    method: string,
    path: string,
    { body, file, fileName = 'file', files = file && { [fileName]: file }, headers = {} }: TestRequest = {},
  ): Promise<TestAnswer> {
    const payload = files ? form(body, files) : body === undefined ? undefined : JSON.stringify(body);
    const response = await fetch(`${this.#address}/api${path}`, {
      method,
      headers: {
        ...headers,
        Cookie: this.#cookie,
        ...(typeof payload === 'string' && { 'Content-Type': 'application/json' }),
      },
      ...(payload !== undefined && { body: payload }),
    });
    const cookie = response.headers.get('Set-Cookie');
    if (cookie) this.#cookie = cookie.split(';')[0]!;
    const text = await response.text();
    return { status: response.status, headers: response.headers, text, json: parsed(text) };
  }
}

function form(body: unknown, files: Record<string, Buffer>): FormData {
  const data = new FormData();
  if (body !== undefined) data.set('body', JSON.stringify(body));
  for (const [name, bytes] of Object.entries(files)) data.append('file', new Blob([new Uint8Array(bytes)]), name);
  return data;
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
