import { folioReattacher, type Anchor, type NamedFolio } from '#core/anchor';
import { parentPort, workerData } from 'node:worker_threads';

export interface ReattachTask {
  old: NamedFolio;
  next: NamedFolio;
  anchors: Anchor[];
}

const { old, next, anchors } = workerData as ReattachTask;
const find = folioReattacher(old, next);
parentPort!.postMessage(anchors.map(find));
