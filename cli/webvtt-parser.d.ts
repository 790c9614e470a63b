declare module 'webvtt-parser' {
  export class WebVTTParser {
    parse(
      text: string,
      mode?: 'metadata' | 'chapters' | 'subtitles',
    ): { cues: { startTime: number; endTime: number; text: string }[]; errors: { message: string }[] };
  }
}
