import type { SlideText } from './slides.ts';

/** A pitch for a tide table on the ferry's door. */
export const PITCH: SlideText[] = [
  {
    title: 'A door that tells the truth',
    points: [
      'The ferry lands when there is water',
      'The timetable does not know the water',
      'We want one board on one door',
    ],
    notes: 'Begin with the man who waited in the rain. Do not say “timetable” before slide two.',
  },
  {
    title: 'What happens now',
    table: [
      ['Depth at the stage', 'Trips', 'Landed'],
      ['below 1.2 m', '14', '0'],
      ['1.2 to 1.5 m', '11', '6'],
      ['above 1.5 m', '52', '52'],
    ],
    box: 'Twenty-two of seventy-seven trips should never have begun.',
    notes: 'The numbers are from the mate’s log, two weeks in March.',
  },
  {
    title: 'Why it happens',
    points: ['Water slows at the stage', 'Mud falls where water slows', 'A longer stage slows more water'],
    picture: 'mud-tongue',
    notes: 'Draw the circle in the air.',
  },
  {
    title: 'Three ways out',
    points: [
      'Dig: costs money every year',
      'Move the stage: costs money once',
      'Change the times: costs a board and a pen',
    ],
  },
  {
    title: 'What it costs',
    table: [
      ['Way', 'Once', 'Each year'],
      ['Dig', '0', '41,000'],
      ['Move', '260,000', '3,000'],
      ['Board', '180', '0'],
    ],
    box: 'A board costs less than one morning of digging.',
  },
  {
    title: 'What we ask for',
    points: ['One board, one summer', 'A count of those who wait', 'Then decide'],
    box: 'Let the door tell when the boat will land.',
    notes: 'End here. No slide with “thank you”.',
  },
];

/** A pitch for a rock that nobody may walk on for a year. */
export const DECK: SlideText[] = [
  {
    title: 'Leave one rock alone',
    points: ['Nobody steps on it for a year', 'Everybody may look at it', 'We count what comes'],
    notes: 'Hold up the photograph of the heel marks.',
  },
  {
    title: 'What we would see',
    points: ['Barnacles close the gaps', 'The wrack moves up, or it does not', 'Either answer is new'],
    picture: 'zoned-rock',
  },
  {
    title: 'What we need',
    table: [
      ['Thing', 'How many'],
      ['Rope', '30 metres'],
      ['Signs', '2'],
      ['Patience', 'a year'],
    ],
    box: 'The rope is already in the boat house.',
  },
];

/** Thirty slides, to be timed. */
export const LONG_DECK: SlideText[] = Array.from({ length: 30 }, (_, index) => {
  const slide = [...PITCH, ...DECK][index % 9]!;
  return { ...slide, title: `${index + 1}. ${slide.title}` };
});
