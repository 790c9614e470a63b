/** Why a recording did not become words, in a sentence for the person who spoke. */
export class SpeechError extends Error {
  override name = 'SpeechError';

  /** @param lasting whether trying again would come to the same */
  constructor(
    message: string,
    readonly lasting = false,
  ) {
    super(message);
  }
}

function nameOf(language: string): string {
  try {
    return new Intl.DisplayNames(['en'], { type: 'language' }).of(language) ?? language;
  } catch {
    return language;
  }
}

/** Every reason that a transcript can fail for. */
export const speechErrors = {
  corrupt: () =>
    new SpeechError('The recording could not be decoded; it may be damaged. Write the transcript by hand.', true),
  tooLong: () =>
    new SpeechError('Only recordings of up to three hours are written down. Write the transcript by hand.', true),
  format: () =>
    new SpeechError(
      'Recordings of this format can be decoded only where ffmpeg is installed on the server (apt-get install ffmpeg).',
      true,
    ),
  noEngine: (language: string) =>
    new SpeechError(
      `No speech engine on this server knows ${nameOf(language)}. Write the words yourself, or choose another language.`,
      true,
    ),
  nothingHeard: () => new SpeechError('No speech was made out in this recording.', true),
  engineDied: (engine: string) => new SpeechError(`${engine} stopped unexpectedly.`),
  tooSlow: (engine: string) => new SpeechError(`${engine} did not answer in time.`),
  serverAway: (address: string) => new SpeechError(`The speech server at ${address} could not be reached.`),
  serverRefused: (status: number, lasting: boolean) =>
    new SpeechError(`The speech server refused the recording (HTTP ${status}).`, lasting),
  serverNonsense: () => new SpeechError('The speech server answered something that is no transcript.', true),
  notMade: () => new SpeechError('The transcript could not be made.'),
};
