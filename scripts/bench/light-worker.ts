import { setTimeout as sleep } from 'node:timers/promises';
import { parentPort, workerData } from 'node:worker_threads';
import { readOwnWork } from '../../contract/assignments.ts';
import { signedIn, timed } from './answers.ts';

export type LightTimes = number[];

/** Milliseconds between two requests. */
const BETWEEN = 20;

const person = await signedIn((workerData as { address: string }).address, 'Eleni Marathou');
let asking = false;

parentPort!.on('message', (what) => {
  asking = what === 'begin';
  if (asking) void ask();
});
parentPort!.postMessage('ready');

async function ask(): Promise<void> {
  const times: LightTimes = [];
  while (asking) {
    times.push(await timed(() => person.send('GET', readOwnWork.path)));
    await sleep(BETWEEN);
  }
  parentPort!.postMessage(times);
}
