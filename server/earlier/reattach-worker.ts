import { folioReattacher, type Anchor, type NamedFolio } from '#core/anchor';
import { doTask } from '../threads/one-task.ts';

export interface ReattachTask {
  old: NamedFolio;
  next: NamedFolio;
  anchors: Anchor[];
}

await doTask<ReattachTask>(({ old, next, anchors }) => anchors.map(folioReattacher(old, next)));
