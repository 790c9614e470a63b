/* For the unit tests: threads run as they are shipped, built; they start many times as fast as from their sources. */
import { ensureBuilt } from './setup.mjs';

export default () => ensureBuilt('server');
