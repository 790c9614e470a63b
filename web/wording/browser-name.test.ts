import { expect, it } from 'vitest';
import { browserName } from './browser-name.ts';

it.each([
  ['Mozilla/5.0 (Windows NT 10.0; Win64; x64; rv:140.0) Gecko/20100101 Firefox/140.0', 'Firefox on Windows'],
  [
    'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0 Safari/537.36',
    'Chrome on Linux',
  ],
  ['Mozilla/5.0 (Windows NT 10.0) AppleWebKit/537.36 Chrome/140.0 Safari/537.36 Edg/140.0', 'Edge on Windows'],
  [
    'Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) AppleWebKit/605.1 Version/18.0 Safari/604.1',
    'Safari on iPhone',
  ],
  ['curl/8', 'A browser'],
  ['', 'A browser'],
])('%s is %s', (agent, name) => {
  expect(browserName(agent)).toBe(name);
});
