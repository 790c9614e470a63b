import { measure, readWav, type Measure } from '#core/audio';
import { readFile } from 'node:fs/promises';

/** How loud a WAV file is, by EBU R 128. */
export const loudness = async (file: string): Promise<Measure> => measure(readWav(await readFile(file)));
