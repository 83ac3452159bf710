import type { Sharp } from 'sharp';
import { duneSvg, grassSvg, ridge } from './dunes.ts';
import { type KiteLook, kiteSvg } from './kite.ts';
import { clouds, drawn, gradient, layered, sand } from './scene.ts';
import { grain } from './texture.ts';

const width = 12_000;
const height = 3000;

/** Where the seven kites are; marks and frames of the demo refer to them. */
export const panoramaKites: KiteLook[] = [
  { x: 1150, y: 880, size: 560, lean: 18, colours: ['madder', 'cream'], shape: 'diamond', tail: 9 },
  { x: 2700, y: 560, size: 420, lean: -12, colours: ['ink', 'ochre'], shape: 'delta' },
  { x: 4250, y: 1060, size: 520, lean: 8, colours: ['verdigris', 'cream'], shape: 'box' },
  { x: 5950, y: 640, size: 640, lean: -16, colours: ['ochre', 'madder'], shape: 'diamond', tail: 11 },
  { x: 7600, y: 980, size: 430, lean: 14, colours: ['plum', 'sky'], shape: 'delta' },
  { x: 9250, y: 560, size: 520, lean: 20, colours: ['cream', 'verdigris'], shape: 'diamond', tail: 8 },
  { x: 10_850, y: 1000, size: 480, lean: -8, colours: ['madder', 'ink'], shape: 'box' },
];

/** Dunes in evening light, twelve thousand pixels wide, with seven kites over them. */
export async function panorama(): Promise<Sharp> {
  const far = ridge(11, 2010, 120, 2600);
  const middle = ridge(12, 2230, 300, 2300);
  const near = ridge(13, 2560, 420, 3000);
  const defs = `<defs>
    ${gradient('sky', [
      [0, '#33516f'],
      [0.34, '#6f90a4'],
      [0.62, '#d9c3a2'],
      [0.72, '#f1d3a0'],
      [1, '#eec58c'],
    ])}
    <radialGradient id="sun" cx=".73" cy=".66" r=".3"><stop offset="0" stop-color="#fff2cf"/><stop offset=".25" stop-color="#ffe3a6" stop-opacity=".75"/><stop offset="1" stop-color="#ffd58a" stop-opacity="0"/></radialGradient>
    ${gradient('far', [
      [0, '#a98c74'],
      [1, '#c7a37a'],
    ])}
    ${gradient('middle', [
      [0, '#dcb27b'],
      [0.35, '#c49662'],
      [1, '#a0764c'],
    ])}
    ${gradient('near', [
      [0, '#e2b97f'],
      [0.4, '#b98a58'],
      [1, '#7d5a3c'],
    ])}
  </defs>`;
  const lines = panoramaKites.map(
    (kite, index) =>
      `<path d="M${kite.x},${kite.y}Q${kite.x - 120 + index * 30},${kite.y + 900} ${kite.x - 420 + index * 60},${middle(kite.x - 420) + 60}" stroke="#2a2630" stroke-width="2.4" fill="none" opacity=".55"/>`,
  );
  const people = panoramaKites.map((kite, index) => {
    const x = kite.x - 420 + index * 60;
    const y = middle(kite.x - 420) + 90;
    const coat = ['#7d2f27', '#22304c', '#24594f', '#8a5a1d', '#553048', '#3e6676', '#4a2b25'][index] ?? '#333';
    return `<g transform="translate(${x} ${y})"><ellipse cx="26" cy="2" rx="60" ry="7" fill="#2a1a1c" opacity=".4"/><path d="M-13,0L-9,-52H9L13,0H5L0,-40L-5,0Z" fill="#2a2430"/><path d="M-17,-48Q-20,-96 0,-100Q20,-96 17,-48Z" fill="${coat}"/><path d="M8,-90L30,-118" stroke="${coat}" stroke-width="10" stroke-linecap="round"/><circle cy="-112" r="12" fill="#c99872"/><path d="M-13,-114a13,13 0 0 1 26,0z" fill="${coat}"/></g>`;
  });
  return layered(width, height, '#d9c3a2', [
    drawn(
      width,
      height,
      `${defs}<rect width="100%" height="100%" fill="url(#sky)"/><rect width="100%" height="100%" fill="url(#sun)"/>`,
    ),
    await clouds(31, width, 2000, [255, 244, 226], 0.7),
    await clouds(32, width, 1700, [58, 72, 98], 0.28),
    drawn(
      width,
      height,
      `${defs}<rect y="1960" width="100%" height="140" fill="#5d7f8c"/><rect y="1960" width="100%" height="40" fill="#f6dfb3" opacity=".5"/>${duneSvg(far, width, height, 'url(#far)')}${grassSvg(41, far, width, { clumps: 260, length: 46, depth: 40, colours: ['#7c6f4f', '#8d7c55'] })}${duneSvg(middle, width, height, 'url(#middle)')}`,
    ),
    await sand(51, width, 2080, height - 2080, 22),
    drawn(
      width,
      height,
      `${grassSvg(42, middle, width, { clumps: 380, length: 130, depth: 160, colours: ['#6d6a3b', '#8b8348', '#a8985a', '#54562f'] })}${people.join('')}${lines.join('')}`,
    ),
    drawn(width, height, `${defs}${duneSvg(near, width, height, 'url(#near)')}`),
    await sand(52, width, 2420, height - 2420, 44),
    drawn(
      width,
      height,
      `${grassSvg(43, near, width, { clumps: 330, length: 300, depth: 240, colours: ['#5c5a30', '#7e7840', '#a39655', '#c2b16d', '#43472a'] })}${panoramaKites.map(kiteSvg).join('')}`,
    ),
    await grain(61, 12, 0.6),
  ]);
}
