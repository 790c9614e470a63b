import type { Response } from 'express';

export const escaped = (text: string): string =>
  text.replace(/[&<>"']/gu, (character) => `&#${String(character.codePointAt(0))};`);

/** A page for somebody who comes from another site, where the app is not there yet. @param body HTML */
export function answerPage(
  response: Response,
  { status, title, body }: { status: number; title: string; body: string },
): void {
  response.status(status).set('Cache-Control', 'no-store').type('html').send(`<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escaped(title)}</title>
<style>body{max-width:34em;margin:4em auto;padding:0 1em;background:#ece7dd;color:#22201c;font:17px/1.5 sans-serif}a{color:inherit}
.go{display:inline-block;padding:.5em 1em;background:#22201c;color:#fbf8f2;text-decoration:none}</style></head>
<body><h1>${escaped(title)}</h1>${body}</body></html>`);
}
