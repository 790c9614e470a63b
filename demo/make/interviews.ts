import type { Voice } from '../spoken-line.ts';

/** Spoken interviews that students hand in; all people in them are invented. */
export const INTERVIEWS: readonly { name: string; lines: readonly { voice: Voice; text: string }[] }[] = [
  {
    name: 'rania-haddadin',
    lines: [
      { voice: 'slt', text: 'How long have you worked on the ferry?' },
      { voice: 'rms', text: 'Twenty two years. When I began, we could land at any hour. Now we wait for the water.' },
      { voice: 'slt', text: 'What has changed?' },
      { voice: 'rms', text: 'The channel has moved. There is a tongue of mud in front of the stage, and it grows.' },
    ],
  },
  {
    name: 'zofia-krol',
    lines: [
      { voice: 'slt', text: 'You dig for bait here every week. What do you see that I do not?' },
      {
        voice: 'awb',
        text: 'Where the worms are, the mud is firm. Where it shines, you sink. I never look at the water.',
      },
    ],
  },
  {
    name: 'aroha-ngata',
    lines: [
      { voice: 'slt', text: 'My grandmother calls this place the Slack. I asked her why.' },
      { voice: 'slt', text: 'Because nothing moves, she said, for as long as it takes to drink a cup of tea.' },
    ],
  },
  {
    name: 'bashir-osman',
    lines: [
      { voice: 'awb', text: 'The old chart hangs in the waiting room. Nobody has looked at it for years, so I did.' },
    ],
  },
  {
    name: 'catrin-pryce',
    lines: [{ voice: 'slt', text: 'This is the sound of the landing stage at low water. Listen to the chains.' }],
  },
  {
    name: 'dorji-wangmo',
    lines: [
      { voice: 'rms', text: 'This is the rock below the kiln at low water. The top is bare and dry.' },
      { voice: 'rms', text: 'Then come the barnacles, and below them the wrack. The edge is as sharp as a ruler.' },
    ],
  },
];
