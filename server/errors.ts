import type { Problem } from '../contract/problem.ts';

/** Something that the asker can understand and often mend. Answered as RFC 9457 problem details. */
export class ProblemError extends Error {
  readonly problem: Problem;

  /** @param retryAfter seconds after which trying again may help */
  constructor(
    status: number,
    name: string,
    title: string,
    detail: string,
    readonly retryAfter?: number,
  ) {
    super(detail);
    this.name = 'ProblemError';
    this.problem = { type: `urn:vivid-margin:${name}`, title, status, detail };
  }
}

const CODE_UNKNOWN = 'code-unknown';

const megabytes = (bytes: number): string => `${Math.round(bytes / 1024 / 1024)} MB`;

/** Every problem the server answers with. The sentences are read by teachers and students. */
export const problems = {
  notSignedIn: () =>
    new ProblemError(
      401,
      'not-signed-in',
      'Not signed in',
      'You are not signed in, or your session has ended. Please sign in again.',
    ),
  otherPerson: () =>
    new ProblemError(
      409,
      'other-person',
      'Someone else is signed in',
      'Someone else has signed in in this browser. Sign in again with your own account; nothing you made is lost.',
    ),
  wrongPassword: () =>
    new ProblemError(
      401,
      'wrong-password',
      'Sign-in failed',
      'This name and password do not match. Check both and try again.',
    ),
  wrongCurrentPassword: () =>
    new ProblemError(
      422,
      'wrong-current-password',
      'Password not changed',
      'The password you have now is not the one you typed. Check it and try again.',
    ),
  tooManyTries: (seconds: number) =>
    new ProblemError(
      429,
      'too-many-tries',
      'Too many attempts',
      `Too many attempts to sign in. Wait ${seconds < 90 ? `${seconds} s` : `${Math.ceil(seconds / 60)} minutes`} and try again.`,
      seconds,
    ),
  passwordCommon: () =>
    new ProblemError(
      422,
      'password-common',
      'Password too common',
      'Many people use this password, so it is guessed first. Choose another one.',
    ),
  passwordIsName: () =>
    new ProblemError(
      422,
      'password-is-name',
      'Password too easy',
      'This is your name or your sign-in name. Choose a password that nobody can read off.',
    ),
  notFound: () =>
    new ProblemError(404, 'not-found', 'Not found', 'There is nothing here, or you are not allowed to see it.'),
  notAllowed: () =>
    new ProblemError(403, 'not-allowed', 'Not allowed', 'You may see this, but you are not allowed to do that.'),
  unknownPlatform: () =>
    new ProblemError(
      404,
      'unknown-platform',
      'Unknown platform',
      'This learning platform is not known here. Whoever looks after your school can enter it.',
    ),
  signInOver: () =>
    new ProblemError(
      403,
      'sign-in-over',
      'Sign-in link expired',
      'This sign-in link has been used already, has expired, or was opened in another browser. Open Vivid Margin again from your learning platform, and allow cookies.',
    ),
  launchRefused: (why: string) =>
    new ProblemError(
      403,
      'launch-refused',
      'You cannot come in this way',
      `What your learning platform sent is not taken. ${why}`,
    ),
  arrivalOver: () =>
    new ProblemError(
      404,
      'arrival-over',
      'Sign-in has expired',
      'Open Vivid Margin from your learning platform again, and finish within ten minutes.',
    ),
  alreadyLinked: () =>
    new ProblemError(
      409,
      'already-linked',
      'Already linked',
      'This platform account is linked to an account here already. Ask the school’s steward if that is wrong.',
    ),
  privateAddress: (host: string) =>
    new ProblemError(
      422,
      'private-address',
      'Address not allowed',
      `${host} leads to this machine or its own network. Whoever runs this server can allow that with VIVID_PRIVATE_PLATFORMS=true.`,
    ),
  tooManyLaunches: () =>
    new ProblemError(
      429,
      'too-many-launches',
      'Too many sign-ins',
      'Too many sign-ins were started from your network. Wait a minute and open it again from your learning platform.',
    ),
  platformKnown: () =>
    new ProblemError(
      409,
      'platform-known',
      'Known already',
      'A platform with this issuer and client id is entered already.',
    ),
  notConnected: () =>
    new ProblemError(
      409,
      'not-connected',
      'Not connected',
      'This course is not connected with a learning platform, or the platform does not offer this. Open the course from there once, as a teacher.',
    ),
  connectedElsewhere: () =>
    new ProblemError(
      409,
      'connected-elsewhere',
      'Connected already',
      'This course is connected with another course of a platform already.',
    ),
  platformFailed: (why: string) => new ProblemError(502, 'platform-failed', 'The platform does not answer', why),
  oneRosterFile: (why: string) => new ProblemError(422, 'oneroster-file', 'Cannot be brought in', why),
  importUsed: () =>
    new ProblemError(
      409,
      'import-used',
      'Not taken back',
      'Something has been done since with an assignment that came in. Its grades are as they were; the assignment stays.',
    ),
  namesStay: () =>
    new ProblemError(
      409,
      'names-stay',
      'File hidden',
      'This file can’t be shown without its author’s name. It is available once the work has been returned.',
    ),
  rubricElsewhere: (title: string) =>
    new ProblemError(
      422,
      'rubric-elsewhere',
      'Rubric not saved',
      `“${title}” belongs to another assignment’s rubric, or appears twice. Copy the rubric instead; nothing has been changed.`,
    ),
  sharedWithTeachers: () =>
    new ProblemError(
      422,
      'shared-with-teachers',
      'Not shared',
      'Banked remarks can be shared with teachers only. Remove everyone else from the list.',
    ),
  blind: () =>
    new ProblemError(
      403,
      'second-marking',
      'Second marking',
      'You are marking this work a second time. What was given before is shown when you have handed your marking over.',
    ),
  handedOver: () =>
    new ProblemError(409, 'handed-over', 'Handed over', 'This second marking has been handed over and stays as it is.'),
  notScoredYet: (count: number) =>
    new ProblemError(
      409,
      'not-scored-yet',
      'Not all is scored',
      `${count === 1 ? 'One work has' : `${count} works have`} criteria without a score. Score them, or say that they are not assessed.`,
    ),
  notInSample: () =>
    new ProblemError(
      422,
      'not-in-sample',
      'Cannot be marked a second time',
      'Some of these works are not there any more, or are not scored completely. Choose a sample again.',
    ),
  notASecondMarker: () =>
    new ProblemError(
      422,
      'not-a-second-marker',
      'No second marker',
      'The second marker has to teach this course, and cannot be you, since you see the results.',
    ),
  returned: () =>
    new ProblemError(
      409,
      'returned',
      'Already returned',
      'This work has been returned. Take it back first if you want to change your feedback.',
    ),
  notReturned: () =>
    new ProblemError(
      409,
      'not-returned',
      'Not returned',
      'Your teacher has this work at the moment. You can answer once it has been returned.',
    ),
  otherOrigin: () =>
    new ProblemError(403, 'other-origin', 'Refused', 'This request came from another website, so it was refused.'),
  unknownHost: (host: string) =>
    new ProblemError(
      421,
      'unknown-host',
      'Unknown address',
      `This server does not know that it can be reached as “${host}”. Whoever runs it can add the name to VIVID_HOSTS.`,
    ),
  badRequest: (detail: string) => new ProblemError(400, 'bad-request', 'Not understood', detail),
  formTooLarge: () =>
    new ProblemError(
      413,
      'form-too-large',
      'Too much text',
      'The text that was sent is larger than 1 MB, the most that can be taken at once. Make it shorter, or attach it as a file.',
    ),
  notKeepable: () =>
    new ProblemError(
      422,
      'not-keepable',
      'Cannot be kept',
      'Something in this cannot be kept: a number is too large or too small, or a text holds something that is no text.',
    ),
  fileEmpty: () =>
    new ProblemError(
      422,
      'file-empty',
      'Empty file',
      'This file is empty (0 bytes). Choose another, or save it again first.',
    ),
  fileMissing: () =>
    new ProblemError(400, 'file-missing', 'No file', 'No file came with this. Choose a file and try again.'),
  fileTooLarge: (limit: number) =>
    new ProblemError(
      413,
      'file-too-large',
      'File too large',
      `This file is larger than ${megabytes(limit)}, the most you can hand in. Make its pictures smaller and try again.`,
    ),
  cannotMark: () =>
    new ProblemError(
      422,
      'cannot-mark',
      'Cannot be marked',
      'Marks can be put into PDF files and pictures only, and this file is neither, or damaged.',
    ),
  fileProtected: () =>
    new ProblemError(
      409,
      'file-protected',
      'Protected file',
      'This PDF is signed or locked against changes, and marks would break that. You can have a copy with the marks, without signature or lock.',
    ),
  tooManyFiles: (limit: number) =>
    new ProblemError(
      413,
      'too-many-files',
      'Too many files',
      `You can hand in up to ${limit} file${limit === 1 ? '' : 's'}.`,
    ),
  brokeOff: () =>
    new ProblemError(
      400,
      'broke-off',
      'Broke off',
      'The upload broke off before all of it had arrived. Please try again.',
    ),
  uploadGone: () =>
    new ProblemError(
      410,
      'upload-gone',
      'Not there any more',
      'What was sent for this is not there any more, or not all of it. Please send it again.',
    ),
  dayFull: (limit: number) =>
    new ProblemError(
      507,
      'day-full',
      'Enough for today',
      `You have sent ${megabytes(limit)} within a day, the most there is room for. It goes on tomorrow; until then it is kept where it is.`,
    ),
  workTooLarge: (limit: number) =>
    new ProblemError(
      413,
      'work-too-large',
      'Work too large',
      `Together these files are larger than ${megabytes(limit)}, the most you can hand in.`,
    ),
  busy: () =>
    new ProblemError(
      503,
      'busy',
      'Much to read',
      'Many documents are being read right now, and this one did not get its turn. Please try again in a minute.',
    ),
  hasQuestions: () =>
    new ProblemError(
      409,
      'has-questions',
      'Questions to answer',
      'This assignment is a list of questions: answer them here instead of handing in a file.',
    ),
  hasNoQuestions: () =>
    new ProblemError(409, 'no-questions', 'No questions', 'This assignment has no questions: hand in a file instead.'),
  notAnAnswer: (question: number) =>
    new ProblemError(
      422,
      'not-an-answer',
      'Answer not understood',
      `The answer to question ${question} is not the kind of answer the question asks for. Write a number like 3.5, without words.`,
    ),
  noAnswers: () =>
    new ProblemError(422, 'no-answers', 'Nothing answered', 'Answer at least one question before you hand in.'),
  opened: () =>
    new ProblemError(
      409,
      'opened',
      'Already opened',
      'Your teacher has already opened this version, so it stays. Hand in a new version instead.',
    ),
  pointsRefused: () =>
    new ProblemError(
      422,
      'points-refused',
      'Points refused',
      'This question is not part of the work, or is worth fewer points.',
    ),
  unreadableDocument: (detail: string) =>
    new ProblemError(422, 'unreadable-document', 'Document cannot be read', detail),
  soundEmpty: () =>
    new ProblemError(
      422,
      'sound-empty',
      'Empty recording',
      'There is no sound in this recording. Hold the key while you speak, and let go when you have finished.',
    ),
  soundUnknown: () =>
    new ProblemError(
      422,
      'sound-unknown',
      'Not a recording',
      'This recording cannot be played. Use a WebM, Ogg, MP4 or WAV file.',
    ),
  anchorLost: () =>
    new ProblemError(
      422,
      'anchor-lost',
      'Passage not found',
      'The passage this remark is about is not at that place in the work.',
    ),
  unknownLevel: () =>
    new ProblemError(
      422,
      'unknown-level',
      'Unknown level',
      'This criterion or level is not part of the rubric of this assignment.',
    ),
  codeUnknown: () =>
    new ProblemError(
      404,
      CODE_UNKNOWN,
      'Code not known',
      'Nobody is waiting behind this code. Look at it once more, or ask your teacher for a new one.',
    ),
  isCodeUnknown: (error: unknown) =>
    error instanceof ProblemError && error.problem.type === `urn:vivid-margin:${CODE_UNKNOWN}`,
  codeUsed: () =>
    new ProblemError(
      409,
      'code-used',
      'Code used before',
      'Somebody has come in with this code already. If that was you, sign in with your name and password; if not, tell your teacher, who can give you a new one.',
    ),
  codeExpired: () =>
    new ProblemError(
      410,
      'code-expired',
      'Code too old',
      'This code was good for a while, and that is over. Ask your teacher for a new one.',
    ),
  nameMissing: () => new ProblemError(422, 'name-missing', 'No name', 'Type your name as your teacher knows it.'),
  nameThere: () =>
    new ProblemError(
      409,
      'name-there',
      'Name taken',
      'Somebody of this name is in the course and has come in already. If that is you, sign in; if not, ask your teacher for a join slip of your own.',
    ),
  slipElsewhere: () =>
    new ProblemError(
      403,
      'slip-elsewhere',
      'Not only yours',
      'Whoever has a slip has the account. Somebody here is also in a course that you do not teach, or is a teacher, so only the school’s steward can give them a new one.',
    ),
  notOnlyYours: (name: string) =>
    new ProblemError(
      403,
      'not-only-yours',
      'Shared with others',
      `${name} wasn’t added in your course, or is in other courses too. Ask the school’s steward to change or merge this entry.`,
    ),
  mergesTeacher: () =>
    new ProblemError(
      409,
      'merges-teacher',
      'Teaches a course',
      'This person teaches, so this entry can’t be merged. Merge the other entry into this one, or keep both.',
    ),
  invitationOver: () =>
    new ProblemError(
      404,
      'invitation-over',
      'No invitation',
      'This invitation has been withdrawn or answered already. Reload the page.',
    ),
  listUnreadable: () =>
    new ProblemError(
      422,
      'list-unreadable',
      'List not read',
      'This file is no list of text. Save it as CSV, or copy the names and paste them.',
    ),
  cannotApply: () =>
    new ProblemError(
      409,
      'cannot-apply',
      'Not applied',
      'The settled levels belong to an earlier version of this work or of its rubric. Mark the new version at the desk.',
    ),
  textTooLarge: () =>
    new ProblemError(
      422,
      'text-too-large',
      'Text too large',
      'This text is too large to read at once. Split it and import the parts.',
    ),
  listTooLong: (most: number) =>
    new ProblemError(422, 'list-too-long', 'List too long', `A list has up to ${most} lines. Bring it in in parts.`),
  noMail: () =>
    new ProblemError(422, 'no-mail', 'No mail address', 'This is no mail address: it looks like name@place.example.'),
  mailOrNumberTaken: () =>
    new ProblemError(
      409,
      'mail-or-number-taken',
      'Somebody else’s',
      'Somebody else at this school has this mail address or this number. Nothing was changed.',
    ),
  teachesAlready: (name: string) =>
    new ProblemError(409, 'teaches-already', 'Here already', `${name} teaches this course already.`),
  learnsHere: (name: string) =>
    new ProblemError(409, 'learns-here', 'A student here', `${name} is a student in this course.`),
  questionsAnswered: () =>
    new ProblemError(
      409,
      'questions-answered',
      'Answered already',
      'Somebody has handed in answers to these questions, so they stay as they are. Make another assignment for new ones.',
    ),
  courseAside: () =>
    new ProblemError(
      409,
      'course-aside',
      'This course is over',
      'This course has been put aside, so nothing can be handed in. Your teacher can bring it back.',
    ),
  noAttemptLeft: (attempts: number) =>
    new ProblemError(
      409,
      'no-attempt-left',
      'Handed in already',
      `This can be handed in ${attempts === 1 ? 'once' : `${attempts} times`}, and you have done so. Ask your teacher if something went wrong.`,
    ),
  formatRefused: (formats: readonly string[]) =>
    new ProblemError(
      422,
      'format-refused',
      'Another format, please',
      `Your teacher takes only: ${formats.join(', ')}. Save your work as one of these and hand it in again.`,
    ),
  rubricRefused: (why: string) => new ProblemError(422, 'rubric-refused', 'Rubric refused', why),
  schemeRefused: (why: string) => new ProblemError(422, 'scheme-refused', 'Not kept', why),
  noTable: () =>
    new ProblemError(
      422,
      'no-table',
      'No table',
      'There is no table in this file. Save the grades as .csv or .xlsx and choose that file.',
    ),
  cellTwice: () =>
    new ProblemError(422, 'cell-twice', 'Not kept', 'One student is there twice in the same assignment.'),
  marksNameless: () =>
    new ProblemError(
      409,
      'marks-nameless',
      'Marked without names',
      'This assignment is marked without names. Grade its works at the desk; they are shown here once they are returned.',
    ),
  newVersionWaits: () =>
    new ProblemError(
      409,
      'new-version-waits',
      'New version to mark',
      'A new version is to be marked at the desk. The grade that was returned stands until then.',
    ),
  gradeRefused: (why: string) => new ProblemError(422, 'grade-refused', 'Grade not saved', why),
  nothingPossible: () =>
    new ProblemError(
      422,
      'nothing-possible',
      'Nothing to give',
      'Say first what this assignment is out of: open it and set the points of the whole work, or a rubric.',
    ),
  notAStudent: () =>
    new ProblemError(
      422,
      'not-a-student',
      'Not in this course',
      'That is no student of this course. Choose one of the list.',
    ),
  idTaken: () =>
    new ProblemError(409, 'id-taken', 'Already used', 'Something else has already been saved in its place.'),
  changedMeanwhile: (now: unknown) => {
    const error = new ProblemError(
      409,
      'changed-meanwhile',
      'Changed meanwhile',
      'Somebody else has changed the same thing in the meantime.',
    );
    error.problem.now = now;
    return error;
  },
  bankFile: (why: string) => new ProblemError(422, 'bank-file', 'Cannot be brought in', `${why} Nothing was changed.`),
  greetsSomebody: () =>
    new ProblemError(
      422,
      'greets-somebody',
      'Greets a student',
      'This copy greets a student by name, so it cannot go back into the bank. Record it again there, or take over a copy without a greeting.',
    ),
  remarkEmpty: () =>
    new ProblemError(422, 'remark-empty', 'Empty remark', 'Say, write or attach something: this remark is empty.'),
  suggestionAstray: () =>
    new ProblemError(
      422,
      'suggestion-astray',
      'Nothing to change',
      'A suggestion changes words in the work: select those words first.',
    ),
  noSuggestion: () =>
    new ProblemError(422, 'no-suggestion', 'No suggestion', 'This remark does not suggest any words.'),
  unknownKind: () =>
    new ProblemError(
      422,
      'unknown-kind',
      'Unknown kind',
      'The margin key of this course no longer has this kind. Choose another.',
    ),
  kindInUse: (remarks: number) =>
    new ProblemError(
      409,
      'kind-in-use',
      'Kind in use',
      `${remarks} ${remarks === 1 ? 'remark has' : 'remarks have'} the kind you removed. Give ${remarks === 1 ? 'it' : 'them'} another kind first, or rename the kind.`,
    ),
  unknownStamp: () =>
    new ProblemError(422, 'unknown-stamp', 'Unknown stamp', 'This picture is no longer one of your stamps.'),
  notAPicture: () =>
    new ProblemError(422, 'not-a-picture', 'Not a picture', 'A stamp has to be a picture: a PNG, JPEG or WebP file.'),
  noCaptions: () =>
    new ProblemError(
      422,
      'no-captions',
      'No captions',
      'No captions could be read from this file. Use WebVTT, SubRip (.srt) or plain text.',
    ),
  noTranslator: () =>
    new ProblemError(
      422,
      'no-translator',
      'No translator',
      'There is no translator for these two languages. Type the words yourself.',
    ),
  translatorAway: (reason: string) => new ProblemError(502, 'translator-away', 'Not translated', reason),
  otherName: () =>
    new ProblemError(
      422,
      'other-name',
      'Not erased',
      'This is not the name. Type it as it stands in the list; nothing was erased.',
    ),
  erasesTeacher: () =>
    new ProblemError(
      409,
      'erases-teacher',
      'Not erased',
      'This person teaches or has taught: what they said belongs to the works of their students. Nothing was erased.',
    ),
  replyEmpty: () =>
    new ProblemError(422, 'reply-empty', 'Empty answer', 'Write or say something before you send the answer.'),
  noRoom: () =>
    new ProblemError(
      507,
      'no-room',
      'No room left',
      'The server has no room left to keep this; whoever runs it has to make some. Everything that was kept before can still be read.',
    ),
  unexpected: () =>
    new ProblemError(
      500,
      'unexpected',
      'Something went wrong',
      'Something went wrong on the server. Your work is kept in your browser; try again in a moment.',
    ),
};
