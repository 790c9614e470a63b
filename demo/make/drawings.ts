/** Drawings of the sample school as SVG; what is sketched and what is measured on the invented shore. */
const INK = 'fill="none" stroke="#3b3a36" stroke-width="4" stroke-linecap="round" stroke-linejoin="round"';
const words = (x: number, y: number, text: string): string =>
  `<text x="${x}" y="${y}" font-family="serif" font-size="30" font-style="italic" fill="#3b3a36">${text}</text>`;

const drawing = (width: number, height: number, paper: string, inside: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="${paper}"/>${inside}</svg>`;

export const DRAWINGS = {
  'mud-tongue': drawing(
    900,
    600,
    '#fdfbf5',
    `<g ${INK}><path d="M60 80 C 300 120 420 260 840 240"/><path d="M60 260 C 280 300 420 440 840 430"/><path d="M300 200 C 380 220 470 300 560 330 C 470 340 360 320 300 200 Z" fill="#cdbf9f"/><path d="M330 330 v120 M390 350 v110 M450 372 v100"/></g>${words(600, 200, 'deep water')}${words(380, 270, 'mud')}${words(240, 520, 'the landing stage')}`,
  ),
  'zoned-rock': drawing(
    1400,
    1000,
    '#f6f2e7',
    `<g ${INK}><path d="M120 860 L 380 240 L 560 180 L 800 300 L 1010 520 L 1280 860 Z" fill="#e4dcc8"/><path d="M300 430 C 480 400 700 430 900 410" stroke-dasharray="10 12"/><path d="M230 600 C 480 560 800 610 1080 590" stroke-dasharray="10 12"/><path d="M170 740 C 480 700 900 760 1190 730" stroke-dasharray="10 12"/><circle cx="470" cy="500" r="14"/><circle cx="540" cy="520" r="12"/><circle cx="610" cy="500" r="15"/><circle cx="690" cy="525" r="12"/><path d="M320 700 q 20 -60 40 0 q 20 -60 40 0 q 20 -60 40 0 M 600 690 q 20 -60 40 0 q 20 -60 40 0 M 900 700 q 20 -60 40 0 q 20 -60 40 0"/><path d="M1040 300 l -150 130" marker-end="none"/></g>${words(1050, 290, 'sharp edge here')}${words(420, 330, 'bare, dry')}${words(730, 480, 'barnacles')}${words(700, 660, 'wrack')}${words(500, 830, 'always wet')}${words(60, 70, 'Rock below the kiln, low water, 9 March')}`,
  ),
  'gull-feet': drawing(
    1000,
    1400,
    '#f4efe2',
    `<g ${INK}><path d="M300 1200 l 60 -160 l 20 140 M360 1040 l 90 110"/><path d="M440 900 l 60 -160 l 20 140 M500 740 l 90 110"/><path d="M580 600 l 60 -160 l 20 140 M640 440 l 90 110"/><path d="M700 330 l 50 -140 l 20 120 M750 190 l 80 90"/><path d="M250 1280 h 200 M250 1265 v30 M450 1265 v30"/></g>${words(270, 1345, '20 cm')}${words(80, 90, 'One gull, walking. It turned here.')}${words(120, 420, 'the step grows longer')}`,
  ),
  transect: drawing(
    1200,
    700,
    '#ffffff',
    `<g ${INK}><path d="M80 620 H 1140 M80 620 V 60"/><path d="M100 160 C 300 170 420 300 600 380 C 800 460 950 540 1120 560"/><path d="M100 300 H 1120" stroke-dasharray="4 12"/></g>${words(860, 285, 'mean tide')}${words(900, 680, 'metres from the wall')}`,
  ),
};
