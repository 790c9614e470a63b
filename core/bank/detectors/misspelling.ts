import { sure, type Detector } from '../detector.ts';

/** Common misspellings of English; common practice in lists of style guides. */
const MISSPELT = new Set(
  (
    'recieve recieved beleive beleived acheive acheived definately definatly definetly seperate seperated seperately occured occuring ' +
    'occurence begining untill tommorow tommorrow accomodate adress agressive alot allways amoung apparant arguement athiest basicly becuase ' +
    'beautifull beggining buisness calender catagory cemetary collegue comming commited concious consistant contraversy convinient ' +
    'decieve desparate dependant diffrence diffrent dissapear dissapoint embarass enviroment enviromental existance experiance familar ' +
    'finaly foriegn fourty freind freinds goverment gaurd happend harrass heigth heighth immediatly independant intresting interupt ' +
    'knowlege liason libary lightening maintainance manuever mispell neccessary neccesary necesary noticable ocasion orignal paralell ' +
    'parliment particularily persistant peice posession prefered privelege probly pronounciation publically realy recomend refered relevent ' +
    'religous rember resistence rythm saftey sence sentance similiar sincerly speach strenght succesful succesfully suprise supose teh ' +
    'temperture thier therfor tounge truely tryed usefull usualy vaccum wether wich wierd whereever writting writen yeild shoud woud thru ' +
    'explaination discription obvously diferent compleatly completly carefull hapened occassion sucess tendancy ' +
    "esturary estury tidel shorline wading's sediament vegatation temprature mesurement mesured measurment lenght widht hight"
  ).split(' '),
);
const PATTERN =
  /\b(?:their (?:is|are|was|were)|there (?:own|house|work|feet)|could of|would of|should of|must of|more then|less then|better then|rather then|its (?:a|an|the|not|been|very|too)|your (?:a|the|not)|to (?:much|many|big|small|late|early)\b|loose (?:the|their|its)|effect (?:the|our|their)s?)\b/iu;

export const misspelling: Detector = {
  name: 'misspelling',
  says: 'has a misspelt word',
  labels: ['spelling', 'misspelling', 'misspelt', 'typo', 'proofreading', 'proofread', 'dictionary'],
  find: ({ text, words }) => sure(words.some((word) => MISSPELT.has(word)) || PATTERN.test(text)),
};
