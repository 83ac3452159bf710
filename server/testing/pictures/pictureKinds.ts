import sharp, { type Sharp } from 'sharp';
import { chart, noise } from './pictures.ts';

/** The dimensions of all of them. */
export const kindSize = { width: 96, height: 72 };
const { width, height } = kindSize;
const drawn = (shapes: string) =>
  sharp(Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${shapes}</svg>`));
const ground = (colour: string) => `<rect width="100%" height="100%" fill="${colour}"/>`;
const lines = (count: number, colour: string) =>
  Array.from({ length: count }, (_, at) => `<path d="M0 ${at * 9} L${width} ${at * 5 + 11}" stroke="${colour}"/>`).join(
    '',
  );

/** Twelve pictures of all kinds: smooth, grainy, drawn, lettered, and several at once. */
export const pictureKinds: [string, Sharp][] = [
  ['a smooth chart', chart(width, height)],
  ['noise', noise(width, height)],
  ['soft noise', noise(width, height).blur(2).linear(2, -128)],
  ['very soft noise', noise(width, height).blur(8).linear(6, -640)],
  [
    'a chart with grain',
    chart(width, height).composite([
      {
        input: {
          create: {
            width,
            height,
            channels: 3,
            background: '#808080',
            noise: { type: 'gaussian', mean: 128, sigma: 18 },
          },
        },
        blend: 'soft-light',
      },
    ]),
  ],
  [
    'flat shapes',
    drawn(
      `${ground('#f4f1ea')}<circle cx="60" cy="50" r="38" fill="#1f6f66"/><rect x="80" y="30" width="50" height="60" fill="#a8322a"/>`,
    ),
  ],
  ['fine lines', drawn(ground('#ffffff') + lines(14, '#1b2333'))],
  ['coloured lines', drawn(ground('#1030c0') + lines(12, '#e01020'))],
  [
    'lettering',
    drawn(
      `${ground('#fcfaf5')}<text x="6" y="40" font-size="22">Autumn kites</text><text x="6" y="80" font-size="13">on the dunes, all week</text>`,
    ),
  ],
  [
    'a gradient',
    drawn(
      `<defs><linearGradient id="g" x2="0.4" y2="1"><stop stop-color="#4a76b8"/><stop offset="1" stop-color="#e8d8c0"/></linearGradient></defs>${ground('url(#g)')}`,
    ),
  ],
  ['grey noise', noise(width, height).greyscale().blur(1.2)],
  [
    'a chart with lines',
    chart(width, height).composite([
      {
        input: Buffer.from(
          `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${lines(9, '#10141f')}</svg>`,
        ),
      },
    ]),
  ],
];
