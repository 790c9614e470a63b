import compression from 'compression';
import express, { Router, type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import { assignmentRoutes } from './assignments/routes.ts';
import { bankFileRoutes } from './bank-file/routes.ts';
import { bankRoutes } from './bank/routes.ts';
import { chartRoutes } from './charts/routes.ts';
import { oneRosterRoutes } from './oneroster/routes.ts';
import { moderationRoutes } from './moderation/routes.ts';
import { classRoutes } from './class/routes.ts';
import type { Context } from './context.ts';
import { courseRoutes } from './courses/routes.ts';
import { earlierRoutes } from './earlier/routes.ts';
import { problems } from './errors.ts';
import { feedbackRoutes } from './feedback/routes.ts';
import { gradingRoutes } from './grading/routes.ts';
import { gradebookRoutes } from './gradebook/routes.ts';
import { greetingRoutes } from './greetings/routes.ts';
import { answerRoutes } from './hand-in/answer-routes.ts';
import { typedRoutes } from './hand-in/typed-routes.ts';
import { handoutRoutes } from './handouts/routes.ts';
import { handInRoutes } from './hand-in/routes.ts';
import { knownHost } from './http/known-host.ts';
import { answerProblem } from './http/problem-handler.ts';
import { sameOrigin } from './http/same-origin.ts';
import { beside, LARGEST_FORM } from './http/serve.ts';
import { webApp } from './http/web-app.ts';
import { joiningRoutes } from './joining/routes.ts';
import { stewardRoutes } from './roster/steward-routes.ts';
import { languageRoutes } from './languages/routes.ts';
import { mailRoutes } from './mail/routes.ts';
import { marginKeyRoutes } from './margin-key/routes.ts';
import { noteRoutes } from './notes/routes.ts';
import { noticeRoutes } from './notices/routes.ts';
import { platformDoors } from './platforms/doors.ts';
import { platformRoutes } from './platforms/routes.ts';
import { markedRoutes } from './marked/routes.ts';
import { ownDataRoutes } from './own-data/routes.ts';
import { ownWorkRoutes } from './own-work/routes.ts';
import { presenceRoutes } from './presence/routes.ts';
import { recordingRoutes } from './recordings/routes.ts';
import { wordRoutes } from './recordings/word-routes.ts';
import { remarkRoutes } from './remarks/routes.ts';
import { replyRoutes } from './replies/routes.ts';
import { returningRoutes } from './returning/routes.ts';
import { rosterRoutes } from './roster/routes.ts';
import { schoolRoutes } from './school/routes.ts';
import { searchRoutes } from './search/routes.ts';
import { sessionRoutes } from './sessions/routes.ts';
import { stampRoutes } from './stamps/routes.ts';
import { recognitionRoutes } from './recognition/routes.ts';
import { submissionRoutes } from './submissions/routes.ts';
import { uploadRoutes } from './uploads/routes.ts';
import { waitingRoutes } from './waiting/routes.ts';

/** No inline script, no outside host; recordings that are not sent yet play from `blob:` addresses. */
const security = (secure: boolean) =>
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        // PDF pages are drawn with decoders in WebAssembly.
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        // Vuetify writes its theme into a style element, and components set positions.
        styleSrc: ["'self'", "'unsafe-inline'"],
        fontSrc: ["'self'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        mediaSrc: ["'self'", 'blob:'],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        manifestSrc: ["'self'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    strictTransportSecurity: secure,
  });

const devices: RequestHandler = (_request, response, next) => {
  response.set('Permissions-Policy', 'microphone=(self), camera=(self), display-capture=(self), geolocation=()');
  next();
};

export function createApp(context: Context): Express {
  const app = express();
  app.set('trust proxy', context.settings.trustProxy ? 1 : false);
  app.set('query parser', 'simple');
  app.use(beside(knownHost(context.settings)));
  app.use(beside(security(context.settings.secureCookies)));
  app.use(beside(devices));
  app.use('/api', apiRoutes(context));
  app.use(platformDoors(context));
  app.use(webApp(context.settings.webFolder));
  app.use(answerProblem);
  return app;
}

/** One for each subject. */
const ROUTES = [
  schoolRoutes,
  sessionRoutes,
  joiningRoutes,
  stewardRoutes,
  mailRoutes,
  waitingRoutes,
  noticeRoutes,
  markedRoutes,
  ownDataRoutes,
  ownWorkRoutes,
  courseRoutes,
  rosterRoutes,
  marginKeyRoutes,
  assignmentRoutes,
  classRoutes,
  handoutRoutes,
  handInRoutes,
  answerRoutes,
  typedRoutes,
  recognitionRoutes,
  submissionRoutes,
  earlierRoutes,
  feedbackRoutes,
  returningRoutes,
  presenceRoutes,
  gradingRoutes,
  gradebookRoutes,
  chartRoutes,
  moderationRoutes,
  oneRosterRoutes,
  platformRoutes,
  remarkRoutes,
  bankFileRoutes,
  bankRoutes,
  noteRoutes,
  greetingRoutes,
  replyRoutes,
  recordingRoutes,
  wordRoutes,
  stampRoutes,
  languageRoutes,
  searchRoutes,
  uploadRoutes,
];

function apiRoutes(context: Context): Router {
  const api = Router();
  api.use(beside(sameOrigin(context.settings)), beside(express.json({ limit: LARGEST_FORM })));
  // Recordings and pictures are packed already; only answers in JSON are worth it.
  api.use(
    beside(compression({ filter: (_request, response) => /json/.test(String(response.getHeader('Content-Type'))) })),
  );
  for (const routes of ROUTES) api.use(routes(context));
  api.use(
    beside(() => {
      throw problems.notFound();
    }),
  );
  return api;
}
