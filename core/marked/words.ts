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

/** All that a remark says, as somebody reads it who cannot hear it. */
export function readableWords(
  { recording, text, suggestion, link, reaction, replies }: Readable,
  kind: string,
): string {
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
  if (said.length === 0 && recording) said.push('Spoken; nothing is written down yet.');
  return [`${kind}.`, ...said].join(said.length > 1 ? '\n' : ' ');
}
