import { readdir } from 'node:fs/promises';
import type { Endpoint } from '../../contract/endpoint.ts';

/** What the files of the contract export. */
export async function contractModules(): Promise<Record<string, unknown>[]> {
  const folder = new URL('../../contract/', import.meta.url);
  const files = (await readdir(folder)).filter((one) => one.endsWith('.ts'));
  return Promise.all(
    files.map(async (file) => (await import(new URL(file, folder).pathname)) as Record<string, unknown>),
  );
}

/** Every endpoint of the contract. */
export const allEndpoints = async (): Promise<Endpoint[]> =>
  (await contractModules()).flatMap((module) => Object.values(module).filter(isEndpoint));

const isEndpoint = (value: unknown): value is Endpoint =>
  typeof value === 'object' && value !== null && 'method' in value && 'path' in value;
