interface Spoken {
  recording: { transcript: { text: string } | null } | null;
  text: string;
}

/** What of a remark can be read. */
export interface Readable extends Spoken {
  suggestion: string | null;
  link: string | null;
  reaction: string | null;
  replies: readonly (Spoken & { author: { name: string } })[];
}

/** The words of a remark for a reader who can't hear it: speech, text, suggestion, reaction, link and replies, in this order. */
export function wordsOf({ recording, text, suggestion, link, reaction, replies }: Readable): string[] {
  const said = [
    recording?.transcript?.text,
    text,
    suggestion !== null && (suggestion === '' ? 'Leave this out.' : `Instead: “${suggestion}”`),
    reaction,
    link,
    ...replies.map(
      (reply) => `${reply.author.name}: ${[reply.recording?.transcript?.text, reply.text].filter(Boolean).join('\n')}`,
    ),
  ].filter((one): one is string => typeof one === 'string' && one !== '');
  return said.length === 0 && recording ? ['Spoken; nothing is written down yet.'] : said;
}

/** The same with the name of the remark's kind, as one text. */
export function readableWords(remark: Readable, kind: string): string {
  const said = wordsOf(remark);
  return [`${kind}.`, ...said].join(said.length > 1 ? '\n' : ' ');
}
