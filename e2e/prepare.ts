import { Server } from './server.ts';

export default () => Server.prepare();
