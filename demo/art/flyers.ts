import type { Sharp } from 'sharp';
import { duneSvg, grassSvg, ridge } from './dunes.ts';
import { type FigureLook, figureSvg, spoolOf } from './figure.ts';
import { cloth, type KiteLook, kiteSvg } from './kite.ts';
import { clouds, drawn, gradient, layered, sand } from './scene.ts';
import { grain } from './texture.ts';

const width = 6000;
const height = 4000;

export const flyers: FigureLook[] = [
  {
    x: 900,
    y: 3480,
    height: 1640,
    coat: '#a8372b',
    trousers: '#2f3a4e',
    hat: cloth.ochre,
    scarf: cloth.cream,
    skin: '#e0b08c',
    hair: '#4a2e1e',
    looks: 1,
    arm: 'high',
  },
  {
    x: 1930,
    y: 3400,
    height: 1460,
    coat: '#2f6f67',
    trousers: '#4a3a30',
    hat: '#8c2f2a',
    scarf: cloth.ochre,
    skin: '#a8714c',
    hair: '#1f1512',
    looks: -1,
    arm: 'low',
  },
  {
    x: 2960,
    y: 3520,
    height: 1720,
    coat: '#d39a3a',
    trousers: '#28324a',
    hat: cloth.ink,
    scarf: '#b8402f',
    skin: '#edc3a0',
    hair: '#b5793f',
    looks: 1,
    arm: 'high',
  },
  {
    x: 4010,
    y: 3410,
    height: 1380,
    coat: '#3f4f78',
    trousers: '#37302c',
    hat: '#5f8f7a',
    scarf: '#e8d6a8',
    skin: '#7c4f36',
    hair: '#16100e',
    looks: -1,
    arm: 'high',
  },
  {
    x: 5060,
    y: 3490,
    height: 1600,
    coat: '#6d3b57',
    trousers: '#39404a',
    hat: cloth.cream,
    scarf: cloth.verdigris,
    skin: '#d8a27c',
    hair: '#7b7b80',
    looks: -1,
    arm: 'low',
  },
];

const kites: KiteLook[] = [
  { x: 1560, y: 700, size: 520, lean: 16, colours: ['madder', 'cream'], shape: 'diamond', tail: 8 },
  { x: 960, y: 1180, size: 300, lean: -14, colours: ['verdigris', 'ochre'], shape: 'delta' },
  { x: 3560, y: 560, size: 600, lean: 12, colours: ['ochre', 'ink'], shape: 'diamond', tail: 9 },
  { x: 4420, y: 1130, size: 330, lean: -10, colours: ['cream', 'madder'], shape: 'box' },
  { x: 5240, y: 640, size: 420, lean: 14, colours: ['plum', 'sky'], shape: 'delta' },
];

const bin = `<g transform="translate(5720 3500)"><ellipse cx="40" cy="4" rx="170" ry="22" fill="#1d1420" opacity=".35"/><path d="M-118,-440L-98,0H98L118,-440Z" fill="#4d5559"/><path d="M30,-440L36,0H98L118,-440Z" fill="#000" opacity=".25"/><path d="M-90,-400l14,360M-45,-400l8,360M0,-400v360M45,-400l-8,360M90,-400l-14,360" stroke="#2b3033" stroke-width="12"/><rect x="-136" y="-476" width="272" height="48" rx="20" fill="#343b3f"/><path d="M-60,-470q-20,-70 30,-90q60,10 50,90zM20,-470q10,-50 60,-46q30,20 10,46z" fill="#d9d6cc"/></g>`;

/** Five kite flyers in a row on the beach, with a litter bin that nobody wants in the picture. */
export async function fiveFlyers(): Promise<Sharp> {
  const far = ridge(21, 2480, 190, 1500);
  const near = ridge(22, 3240, 150, 2200);
  const defs = `<defs>
    ${gradient('sky', [
      [0, '#466f93'],
      [0.4, '#8fb0bf'],
      [0.66, '#e4dcc4'],
      [1, '#efd9b0'],
    ])}
    ${gradient('far', [
      [0, '#d8bb8b'],
      [0.5, '#b9925f'],
      [1, '#a37c50'],
    ])}
    ${gradient('near', [
      [0, '#e6c892'],
      [0.5, '#c79d69'],
      [1, '#8f6a45'],
    ])}
  </defs>`;
  const lines = flyers.map((flyer, index) => {
    const kite = kites[[1, 0, 2, 3, 4][index] ?? 0];
    const spool = spoolOf(flyer);
    if (!kite) return '';
    return `<path d="M${spool.x},${spool.y}Q${(spool.x + kite.x) / 2 + 90},${(spool.y + kite.y) / 2 + 260} ${kite.x},${kite.y}" stroke="#2a2630" stroke-width="3" fill="none" opacity=".65"/>`;
  });
  return layered(width, height, '#e4dcc4', [
    drawn(width, height, `${defs}<rect width="100%" height="100%" fill="url(#sky)"/>`),
    await clouds(33, width, 2500, [255, 250, 240], 0.75),
    drawn(
      width,
      height,
      `${defs}<rect y="2330" width="100%" height="220" fill="#5f8794"/><path d="M0,2400H6000M0,2450H6000M0,2495H6000" stroke="#e8efe8" stroke-width="9" stroke-dasharray="420 160 90 240" opacity=".5"/>${duneSvg(far, width, height, 'url(#far)')}${grassSvg(44, far, width, { clumps: 240, length: 150, depth: 260, colours: ['#77713f', '#94894d', '#5d5b33'] })}`,
    ),
    drawn(width, height, `${defs}${duneSvg(near, width, height, 'url(#near)')}`),
    await sand(53, width, 2420, height - 2420, 30),
    drawn(width, height, `${lines.join('')}${kites.map(kiteSvg).join('')}${bin}${flyers.map(figureSvg).join('')}`),
    drawn(
      width,
      height,
      grassSvg(45, (x) => near(x) + 520, width, {
        clumps: 90,
        length: 340,
        depth: 190,
        colours: ['#5c5a30', '#7e7840', '#a39655', '#43472a'],
      }),
    ),
    await grain(62, 12, 0.55),
  ]);
}
