import { ESLint } from 'eslint';
import { describe, expect, it } from 'vitest';

// The files of these tests are not there, and so have no types.
const eslint = new ESLint({
  overrideConfig: {
    files: ['**/*.ts'],
    languageOptions: { parserOptions: { project: null, projectService: false } },
    rules: { '@typescript-eslint/no-floating-promises': 'off' },
  },
});
const rulesBroken = async (filePath: string, code: string): Promise<(string | null)[]> =>
  (await eslint.lintText(code, { filePath }))[0]!.messages.map(({ ruleId }) => ruleId);

describe('lint lets arrows go down only', () => {
  it.each([
    ['core/audio/x.ts', '../../contract/sound.ts'],
    ['core/audio/x.ts', '#server/app'],
    ['core/audio/x.ts', 'node:fs'],
    ['core/audio/x.ts', 'vue'],
    ['contract/x.ts', '../server/app.ts'],
    ['contract/x.ts', '../web/session/api.ts'],
    ['server/media/x.ts', '../../web/session/api.ts'],
    ['server/x.ts', '../cli/read.ts'],
    ['web/desk/x.ts', '../../server/app.ts'],
    ['web/desk/x.ts', '#server/app'],
    ['web/desk/x.ts', '#demo/people'],
    ['demo/x.ts', '../web/theme/theme.ts'],
    ['cli/x.ts', '../web/theme/theme.ts'],
  ])('%s may not import %s', async (file, target) => {
    expect(await rulesBroken(file, `export * from '${target}';\n`)).toContain('no-restricted-imports');
  });

  it.each([
    ['core/audio/x.ts', '../folio/index.ts'],
    ['contract/x.ts', '#core/folio'],
    ['server/media/x.ts', '../../contract/sound.ts'],
    ['web/desk/x.ts', '#contract/sound'],
    ['cli/x.ts', '../server/app.ts'],
  ])('%s may import %s', async (file, target) => {
    expect(await rulesBroken(file, `export * from '${target}';\n`)).toEqual([]);
  });

  it.each(['Math.random()', 'Date.now()', 'new Date()', 'process', 'document'])(
    'core/ may not use %s',
    async (expression) => {
      expect(await rulesBroken('core/audio/x.ts', `export const x = ${expression};\n`)).not.toEqual([]);
    },
  );
});
