/* `npm run demo`: the sample school, from a fresh clone. Options: --port N, --fresh. */
process.argv.splice(2, 0, 'serve', '--sample');
await import('./vivid.mjs');
