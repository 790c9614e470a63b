import { sure, type Detector } from '../detector.ts';
import { count } from '../passage.ts';

const PAST =
  /\b(?:was|were|had|did|went|came|saw|said|took|found|made|began|stood|felt|ran|rose|fell|got|looked|walked|turned|counted|measured|started|seemed|wanted|used|asked|showed|lay|gave|told|left|held|knew|thought)\b/giu;
const PRESENT =
  /\b(?:is|are|has|does|goes|comes|sees|says|takes|finds|makes|begins|stands|feels|runs|rises|falls|gets|looks|walks|turns|counts|measures|starts|seems|wants|uses|asks|shows|lies|gives|tells|leaves|holds|knows|thinks)\b/giu;

export const tenseShift: Detector = {
  name: 'tense-shift',
  says: 'changes between past and present',
  labels: ['tense', 'tenses', 'verb tense', 'tense shift', 'consistency', 'past tense', 'present tense'],
  find: ({ text }) => sure(count(text, PAST) > 0 && count(text, PRESENT) > 0),
};
