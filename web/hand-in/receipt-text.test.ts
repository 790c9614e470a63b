import { describe, expect, it } from 'vitest';
import { receiptText } from './receipt-text.ts';

const receipt = {
  ...{ submission: 'f5b1', student: 'Amaru Quispe', course: 'Reading the Shore', assignment: 'A walk', version: 2 },
  ...{ handedInAt: '2026-11-24T14:05:07Z', dueAt: '2026-11-24T12:00:00Z', late: true },
  files: [{ name: 'walk.docx', byteLength: 12_345, sha256: 'ab'.repeat(32) }],
};

describe('a receipt', () => {
  it('says who handed in what, and when, to the second', () => {
    const text = receiptText(receipt);
    for (const part of ['By: Amaru Quispe', 'Version: 2', '24 November 2026', ':05:07', '(it came later)'])
      expect(text).toContain(part);
    expect(text).toContain(`walk.docx, 12345 bytes, SHA-256 ${'ab'.repeat(32)}`);
  });

  it('does without a date and without files', () => {
    const text = receiptText({ ...receipt, dueAt: null, late: false, files: [] });
    expect(text).not.toContain('Due:');
    expect(text).toContain('Answers that were typed in the app');
  });
});
