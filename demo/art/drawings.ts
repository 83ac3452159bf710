import sharp, { type Sharp } from 'sharp';
import { duneSvg, grassSvg, ridge } from './dunes.ts';
import { cloth, kiteSvg } from './kite.ts';
import { words } from './lettering.ts';
import { drawn, gradient, layered, sand, svg } from './scene.ts';
import { cloudy, grain, veil } from './texture.ts';

/** A kite plan in pencil and ink, as a scanner sees it: the paper greyish and slightly yellow, a shadow at the fold. */
export async function kitePlan(): Promise<Sharp> {
  const width = 3200;
  const height = 2400;
  // A pencil goes over its line twice and never quite hits it.
  const pencil = (body: string, wide: number) =>
    `<g stroke="#55524f" fill="none" stroke-linecap="round"><g stroke-width="${wide}" opacity=".7">${body}</g><g stroke-width="${wide * 0.6}" opacity=".6" transform="translate(2.4 -1.8) rotate(.05)">${body}</g></g>`;
  const measure = (x1: number, y1: number, x2: number, y2: number) =>
    `<path d="M${x1},${y1}L${x2},${y2}"/><circle cx="${x1}" cy="${y1}" r="9"/><circle cx="${x2}" cy="${y2}" r="9"/>`;
  const ink = (text: string, x: number, y: number, size: number) => words(text, 'slanted', x, y, size, '#25262d');
  const body = `${pencil('<path d="M1150,330L500,1010L1150,2090L1800,1010Z"/><path d="M1150,250V2170M420,1010H1880"/><path d="M1150,390L575,1010L1150,1975L1725,1010Z" stroke-dasharray="26 18"/>', 7)}
    ${pencil('<circle cx="1150" cy="1010" r="120"/><circle cx="1150" cy="1010" r="66"/><path d="M1065,925L1235,1095M1235,925L1065,1095"/>', 5)}
    ${pencil(measure(360, 330, 360, 2090) + measure(500, 2240, 1800, 2240) + measure(1960, 330, 1960, 1010), 4)}
    ${pencil('<path d="M2240,620L2480,420L2900,420L2660,620Z"/><path d="M2240,620V1060L2660,1060V620M2660,1060L2900,860V420"/><path d="M2300,1480h560M2300,1530h560M2360,1400l80,210M2760,1400l-80,210"/><circle cx="2580" cy="1505" r="150"/>', 6)}
    ${pencil(Array.from({ length: 34 }, (_, i) => `<path d="M${1170 + i * 17},${1030 + i * 4}l-14,${860 - i * 25}"/>`).join(''), 2)}
    ${ink('Dune runner, no. 7', 2560, 250, 110)}${ink('spruce spar, 8 mm', 640, 560, 62)}${ink('1240', 270, 1230, 66)}${ink('920', 1150, 2330, 66)}${ink('480', 2060, 700, 66)}
    ${ink('keel, sewn double', 2560, 1190, 62)}${ink('spool: 120 m of line', 2580, 1790, 62)}${ink('tail: nine bows, madder and cream', 2450, 2050, 62)}${ink('ripstop, warp along the spine', 2450, 2150, 62)}`;
  const paper = await veil(
    81,
    [118, 104, 78],
    {
      width: 800,
      height: 600,
      value: (x, y, noise) => 0.16 + 0.2 * cloudy(noise, x / 240, y / 240, 5) + 0.05 * noise(x / 2, y / 2),
    },
    { width, height },
  );
  const fibres = await veil(
    82,
    [80, 70, 54],
    {
      width: 1600,
      height: 1200,
      value: (x, y, noise) => 0.22 * Math.max(0, noise(x / 2.2, y / 7)) ** 3 + 0.1 * Math.max(0, noise(x, y)),
    },
    { width, height },
  );
  return layered(width, height, '#e6dfc9', [
    { ...paper, left: 0, top: 0 },
    { ...fibres, left: 0, top: 0 },
    drawn(
      width,
      height,
      `<defs>${gradient(
        'fold',
        [
          [0, '#000', 0],
          [0.49, '#000', 0.02],
          [0.5, '#000', 0.2],
          [0.515, '#000', 0.04],
          [1, '#000', 0],
        ],
        true,
      )}${gradient('edge', [
        [0, '#3a3020', 0.3],
        [0.05, '#3a3020', 0.02],
        [0.93, '#3a3020', 0],
        [1, '#3a3020', 0.18],
      ])}</defs><rect width="100%" height="100%" fill="url(#fold)"/><rect width="100%" height="100%" fill="url(#edge)"/>`,
    ),
    drawn(width, height, body),
    await grain(64, 9, 0.8),
  ]);
}

/** The festival poster: a sheet with a soft shadow in the middle of an empty, transparent margin. */
export function poster(): Buffer {
  const ridgeA = ridge(25, 1490, 90, 700);
  const ridgeB = ridge(26, 1640, 130, 820);
  const art = `<defs>
      <filter id="shadow" x="-20%" y="-20%" width="140%" height="140%"><feGaussianBlur stdDeviation="34"/></filter>
      <clipPath id="sheet"><rect width="1400" height="1980" rx="10"/></clipPath>
      ${gradient('dusk', [
        [0, '#1f3450'],
        [0.5, '#3f7f86'],
        [0.78, '#efc583'],
        [1, '#f2d9a6'],
      ])}
    </defs>
    <rect x="215" y="248" width="1400" height="1980" rx="10" fill="#10141f" opacity=".5" filter="url(#shadow)"/>
    <g transform="translate(200 210)" clip-path="url(#sheet)">
      <rect width="1400" height="1980" fill="url(#dusk)"/><circle cx="1020" cy="1330" r="170" fill="#fbe8b8"/>
      ${duneSvg(ridgeA, 1400, 1980, '#b98a58')}${duneSvg(ridgeB, 1400, 1980, '#7a5738')}${grassSvg(46, ridgeB, 1400, { clumps: 40, length: 120, depth: 60, colours: ['#4c4a29', '#8b8348', '#c2b16d'] })}
      <path d="M700,900Q640,1300 420,1650M1090,640Q1000,1200 640,1690M330,760Q330,1200 260,1690" stroke="#f7ecd2" stroke-width="2.5" fill="none" opacity=".8"/>
      ${kiteSvg({ x: 700, y: 860, size: 470, lean: 14, colours: ['madder', 'cream'], shape: 'diamond', tail: 8 })}
      ${kiteSvg({ x: 1090, y: 620, size: 300, lean: -14, colours: ['ochre', 'plum'], shape: 'delta' })}
      ${kiteSvg({ x: 330, y: 720, size: 300, lean: 10, colours: ['verdigris', 'ochre'], shape: 'box' })}
      ${words('Festival of the Dunes', 'title', 700, 250, 128, '#f7ecd2')}${words('Saltmarsh Kites', 'slanted', 700, 360, 84, '#f2cf8e')}
      <rect y="1770" width="1400" height="210" fill="#1b2333" opacity=".86"/>
      ${words('First week of October', 'plain', 700, 1856, 62, '#f7ecd2')}${words('workshops  ·  night flight  ·  soup', 'slanted', 700, 1932, 52, '#f2cf8e')}
    </g>`;
  return svg(1800, 2460, art);
}

/** A small, hurried snapshot: a kite lying in the sand. */
export async function snapshot(): Promise<Sharp> {
  const [width, height] = [900, 700];
  return layered(width, height, '#c9a877', [
    drawn(
      width,
      height,
      `<defs>${gradient('beach', [
        [0, '#d9bc8c'],
        [1, '#a98356'],
      ])}</defs><rect width="100%" height="100%" fill="url(#beach)"/>`,
    ),
    await sand(55, width, 0, height, 16),
    drawn(
      width,
      height,
      `<filter id="soft"><feGaussianBlur stdDeviation="9"/></filter><polygon points="300,470 480,300 650,390 520,500" fill="#2a1a10" opacity=".5" filter="url(#soft)"/>${kiteSvg({ x: 450, y: 330, size: 400, lean: 64, colours: ['ochre', 'verdigris'], shape: 'diamond', tail: 5 })}`,
    ),
    drawn(
      width,
      height,
      grassSvg(47, (x) => 690 - x / 40, width, {
        clumps: 22,
        length: 150,
        depth: 30,
        colours: ['#5c5a30', '#7e7840', '#a39655'],
      }),
    ),
    await grain(65, 26, 0.8),
  ]);
}

/** The workshop's mark with its name, on nothing. */
export function logo(): Sharp {
  return sharp(
    svg(
      2000,
      800,
      `${kiteSvg({ x: 330, y: 360, size: 560, lean: 16, colours: ['madder', 'verdigris'], shape: 'diamond', tail: 2 })}
       ${words('Saltmarsh', 'title', 640, 380, 250, cloth.ink, 'start')}${words('Kites', 'title', 640, 640, 250, cloth.madder, 'start')}`,
    ),
  );
}
