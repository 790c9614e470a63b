import { School } from '../../contract/school.ts';
import { readWaiting, Waiting } from '../../contract/waiting.ts';
import { Client } from '../../server/testing/client.ts';
import { round } from './figure.ts';

/** Somebody of the sample school, without a browser. */
export async function signedIn(address: string, name: string): Promise<Client> {
  const client = new Client(address);
  const { samplePeople } = School.parse((await client.send('GET', '/school')).json);
  const samplePerson = samplePeople.find((person) => person.name === name)!.id;
  await client.send('POST', '/session', { body: { samplePerson } });
  return client;
}

/** The work that has waited for a teacher longest. */
export async function firstWaiting(teacher: Client): Promise<string> {
  const { json } = await teacher.send('POST', readWaiting.path, { body: { kinds: ['new', 'back'] } });
  return Waiting.parse(json).items[0]!.submission;
}

/** Milliseconds until something is answered, well. */
export async function timed(work: () => Promise<{ status: number; text: string }>): Promise<number> {
  const begun = performance.now();
  const { status, text } = await work();
  if (status !== 200) throw new Error(`The server answered ${status}: ${text}`);
  return performance.now() - begun;
}

export function summary(times: number[]): object {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (share: number): number => round(sorted[Math.floor((sorted.length - 1) * share)] ?? 0);
  return { unit: 'ms', count: times.length, median: at(0.5), percentile95: at(0.95), longest: at(1) };
}
