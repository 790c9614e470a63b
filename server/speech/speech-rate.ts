/** Samples per second that speech engines listen at. */
export const SPEECH_RATE = 16_000;
