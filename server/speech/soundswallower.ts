import createSoundswallower, { type SoundSwallowerModule } from 'soundswallower';

let module: Promise<SoundSwallowerModule> | undefined;

/** The engine of a thread, loaded when it is needed first. */
export const soundswallower = (): Promise<SoundSwallowerModule> => (module ??= createSoundswallower());
