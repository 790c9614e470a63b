const ENDINGS: Record<string, string> = { webm: 'webm', ogg: 'ogg', mp4: 'm4a', wav: 'wav' };

/** Hands bytes to the browser to be saved on the person's machine. */
export function saveAsFile(blob: Blob, name: string): void {
  const ending = Object.keys(ENDINGS).find((format) => blob.type.includes(format));
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = ending ? `${name}.${ENDINGS[ending]}` : name;
  link.click();
  // The browser has begun to read by then.
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}
