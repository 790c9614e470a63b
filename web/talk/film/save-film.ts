import { PLAIN_HEX } from '#contract/ink';
import type { Remark } from '#contract/remarks';
import { urlOf } from '#contract/endpoint';
import { workFile, type Work } from '#contract/submissions';
import { KEY_INKS, keyEntry } from '#core/margin';
import { timelineOf, type Timeline } from '#core/talk';
import { cuesOf } from '#core/transcript';
import {
  AudioBufferSource,
  BufferTarget,
  CanvasSource,
  getFirstEncodableVideoCodec,
  Output,
  WebMOutputFormat,
} from 'mediabunny';
import { soundBlob } from '../../player/media-url.ts';
import { photograph } from '../../paper/photograph.ts';
import { FRAME, filmDrawer } from './film-frame.ts';

const FRAMES_A_SECOND = 12;
/** A picture that stays is told again after so many seconds, so that one can go anywhere in the film. */
const LONGEST_FRAME = 2;
const SOUND_RATE = 48_000;
const BITS_PER_SECOND = { video: 900_000, audio: 64_000 };
/** Seconds of sound that are handed to the encoder at once. */
const PIECE_SECONDS = 5;

/** Said where this browser makes no films. */
export class NoFilm extends Error {}

interface Wanted {
  work: Work;
  /** The talk-through. */
  remark: Remark;
  /** The work alone, as `WorkStage` shows it. */
  stage: HTMLElement;
  /** From 0 to 1. */
  onProgress: (share: number) => void;
  /** Whether somebody has had enough of waiting. */
  ended: () => boolean;
}

/**
 * A talk-through as a film (WebM), made here in the browser.
 * @returns undefined where it was ended before
 * @throws NoFilm where this browser makes none
 */
export async function makeFilm({ work, remark, stage, onProgress, ended }: Wanted): Promise<Blob | undefined> {
  const codec = await getFirstEncodableVideoCodec(['vp9', 'vp8'], FRAME);
  if (!codec) throw new NoFilm('This browser makes no films. A current Chrome, Edge or Firefox does.');
  const timeline = timelineOf(remark.talk!);
  const sound = await mixedSound(work, remark, timeline);
  const paper = await photograph(stage, { onProgress: (share) => onProgress(share * 0.1) });
  const canvas = document.createElement('canvas');
  Object.assign(canvas, FRAME);
  const target = new BufferTarget();
  const output = new Output({ format: new WebMOutputFormat(), target });
  const pictures = new CanvasSource(canvas, { codec, bitrate: BITS_PER_SECOND.video });
  const voice = new AudioBufferSource({ codec: 'opus', bitrate: BITS_PER_SECOND.audio });
  output.addVideoTrack(pictures, { frameRate: FRAMES_A_SECOND });
  output.addAudioTrack(voice);
  await output.start();

  const cues = cuesOf(remark.recording!.transcript?.words ?? []);
  const draw = filmDrawer(canvas.getContext('2d')!, {
    ...{ timeline, paper, look: lookOf(work), kind: remark.kind },
    captionAt: (moment) => cues.find(({ start, end }) => moment >= start && moment < end)?.lines ?? [],
  });
  let heard = 0;
  let shownAt = -Infinity;
  for (let frame = 0; frame / FRAMES_A_SECOND < sound.duration; frame++) {
    if (ended()) {
      await output.cancel();
      return undefined;
    }
    const moment = frame / FRAMES_A_SECOND;
    for (; heard < moment + PIECE_SECONDS && heard < sound.duration; heard += PIECE_SECONDS)
      await voice.add(pieceOf(sound, heard));
    if (!draw(moment, 1 / FRAMES_A_SECOND) && moment - shownAt < LONGEST_FRAME) continue;
    shownAt = moment;
    await pictures.add(moment, 1 / FRAMES_A_SECOND);
    onProgress(0.1 + (0.9 * moment) / sound.duration);
  }
  await output.finalize();
  return new Blob([target.buffer!], { type: 'video/webm' });
}

function pieceOf(sound: AudioBuffer, from: number): AudioBuffer {
  const start = Math.round(from * sound.sampleRate);
  const length = Math.min(Math.round(PIECE_SECONDS * sound.sampleRate), sound.length - start);
  const piece = new AudioBuffer({ length, sampleRate: sound.sampleRate, numberOfChannels: 1 });
  piece.copyToChannel(sound.getChannelData(0).slice(start, start + length), 0);
  return piece;
}

/** The voice, and the student's recording wherever it played along. */
async function mixedSound(work: Work, remark: Remark, { performances }: Timeline): Promise<AudioBuffer> {
  const { duration } = remark.recording!.sound;
  const context = new OfflineAudioContext(1, Math.max(1, Math.ceil(duration * SOUND_RATE)), SOUND_RATE);
  const play = async (bytes: ArrayBuffer, at: number, from: number, length: number): Promise<void> => {
    const source = new AudioBufferSourceNode(context, { buffer: await context.decodeAudioData(bytes) });
    source.connect(context.destination);
    source.start(at, from, length);
  };
  await play(await (await soundBlob(remark.recording!)).arrayBuffer(), 0, 0, duration);
  for (const { leaf, at, until, from } of performances) {
    const one = work.folio.leaves[leaf];
    if (one?.kind !== 'sound') continue;
    const answer = await fetch(urlOf(workFile, { submission: work.id, position: String(one.file) }));
    if (!answer.ok) throw new Error('The student’s recording is not here');
    await play(await answer.arrayBuffer(), at, from, Math.min(until, duration) - at);
  }
  return context.startRendering();
}

/** The colours of the page, as it is seen by day: a film goes to somebody else. */
function lookOf(work: Work): Parameters<typeof filmDrawer>[1]['look'] {
  return {
    ...{ ground: '#ECE7DD', paper: '#FBF8F2', ink: '#22201C' },
    font: getComputedStyle(document.body).fontFamily,
    colour: (name) => PLAIN_HEX[name] ?? KEY_INKS[keyEntry(work.marginKey, name).color],
  };
}
