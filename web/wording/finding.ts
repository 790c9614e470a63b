import type { Finding } from '#core/returning';
import { counted, listOf } from './format.ts';

/** What was found before a return, as one would say it. */
export function findingWords(finding: Finding): string {
  switch (finding.type) {
    case 'nothingSaid':
      return 'Nothing is said about this work yet.';
    case 'noOverall':
      return 'Nothing is said about the work as a whole.';
    case 'unscored':
      return `No score yet for ${listOf(finding.titles)}.`;
    case 'unread':
      return finding.remarks.length === 1
        ? '1 transcript is a draft that nobody has read.'
        : `${finding.remarks.length} transcripts are drafts that nobody has read.`;
    case 'wordless':
      return `${counted(finding.remarks.length, 'spoken remark')} without words, for whoever needs captions.`;
    case 'otherName':
      return `A remark says “${finding.name}”, which is another student’s name.`;
    case 'few':
      return `${counted(finding.remarks, 'remark')}, where the others have about ${finding.usual}.`;
  }
}

/** The remark that a finding is about first; undefined where it is about none. */
export function remarkOfFinding(finding: Finding): string | undefined {
  if (finding.type === 'otherName') return finding.remark;
  return finding.type === 'unread' || finding.type === 'wordless' ? finding.remarks[0] : undefined;
}
