import type { Sharp } from 'sharp';
import { headSvg } from './figure.ts';
import { cloth, kiteSvg } from './kite.ts';
import { between, seeded } from './random.ts';
import { drawn, gradient, layered } from './scene.ts';
import { cloudy, grain, veil, weave } from './texture.ts';

const width = 4000;
const height = 6000;

function shelf(): string {
  const random = seeded(91);
  const colours = Object.values(cloth);
  const rolls = Array.from({ length: 15 }, (_, index) => {
    const x = 2240 + (index % 5) * 330 + between(random, -14, 14);
    const y = 1050 + Math.floor(index / 5) * 430;
    const colour = colours[Math.floor(random() * colours.length)] ?? '#888';
    return `<g transform="translate(${x} ${y})"><circle r="140" fill="${colour}"/><circle r="140" fill="url(#roll)"/><circle r="44" fill="#c9a878"/><circle r="26" fill="#3a2a1e"/><path d="M-140,0A140,140 0 0 0 0,140" stroke="#000" stroke-width="16" opacity=".22" fill="none"/></g>`;
  });
  const boards = [1210, 1640, 2070].map(
    (y) =>
      `<rect x="2040" y="${y}" width="1960" height="46" fill="#6f4a2d"/><rect x="2040" y="${y + 46}" width="1960" height="34" fill="#000" opacity=".3"/>`,
  );
  return rolls.join('') + boards.join('');
}

/** The kite maker at the bench in the light of a window, upright. */
export async function kiteMaker(): Promise<Sharp> {
  const defs = `<defs>
    ${gradient(
      'wall',
      [
        [0, '#7f6a57'],
        [0.55, '#5d4a3e'],
        [1, '#33282a'],
      ],
      true,
    )}
    ${gradient('glass', [
      [0, '#e9f1ee'],
      [1, '#f8eccb'],
    ])}
    ${gradient('top', [
      [0, '#a3713f'],
      [1, '#6e4524'],
    ])}
    ${gradient(
      'coat',
      [
        [0, '#d8cbb0'],
        [0.5, '#b7a688'],
        [1, '#6f6253'],
      ],
      true,
    )}
    ${gradient(
      'apron',
      [
        [0, '#3f6f74'],
        [0.6, '#2a5058'],
        [1, '#17303a'],
      ],
      true,
    )}
    <radialGradient id="roll"><stop offset=".3" stop-color="#fff" stop-opacity=".18"/><stop offset="1" stop-color="#000" stop-opacity=".45"/></radialGradient>
    <radialGradient id="light" cx=".12" cy=".24" r=".75"><stop offset="0" stop-color="#fff1cf" stop-opacity=".75"/><stop offset="1" stop-color="#ffe9bd" stop-opacity="0"/></radialGradient>
  </defs>`;
  const window = `<rect x="230" y="620" width="1240" height="2060" fill="#4a3527"/><rect x="300" y="690" width="1100" height="1920" fill="url(#glass)"/><path d="M300,2120Q700,1990 1400,2160V2610H300Z" fill="#cfb27f"/><path d="M300,2060h1100v80h-1100z" fill="#8fb0b4" opacity=".8"/><path d="M850,690V2610M300,1330H1400M300,1970H1400" stroke="#4a3527" stroke-width="44"/><rect x="180" y="2640" width="1340" height="90" fill="#6f4a2d"/>`;
  const person = `<g transform="translate(1900 4560)">
    <path d="M-720,0Q-800,-900 -520,-1240Q-260,-1440 0,-1450Q260,-1440 520,-1240Q800,-900 720,0Z" fill="url(#coat)"/>
    <path d="M-260,-1400Q-60,-1180 0,-1150Q60,-1180 260,-1400L180,-1460L-180,-1460Z" fill="#efe3ca"/>
    <path d="M-420,-980Q0,-900 420,-980L520,0H-520Z" fill="url(#apron)"/><path d="M-400,-975L-230,-1330M400,-975L230,-1330" stroke="#2a5058" stroke-width="70"/>
    <path d="M-300,-520Q0,-470 300,-520L280,-250Q0,-210 -280,-250Z" fill="#1c3d45"/><path d="M-290,-505Q0,-455 290,-505" stroke="#cfc09a" stroke-width="9" stroke-dasharray="30 18" fill="none"/>
    <g transform="translate(20 -1780) scale(7.4)">${headSvg({ skin: '#c98f68', hair: '#5b5654', hat: '#7a2e2a', looks: -1 })}</g>
    <g fill="none" stroke="#2b2422" stroke-width="17"><circle cx="-130" cy="-1765" r="92"/><circle cx="62" cy="-1765" r="92"/><path d="M-38,-1770q10,-12 8,0M154,-1775l120,-30"/></g>
  </g>`;
  const arms = `<path d="M1270,3560Q900,4180 1330,4760" stroke="url(#coat)" stroke-width="330" stroke-linecap="round" fill="none"/><path d="M2520,3560Q2960,4160 2590,4740" stroke="#8f8069" stroke-width="330" stroke-linecap="round" fill="none"/>
    <ellipse cx="1400" cy="4830" rx="190" ry="130" fill="#c98f68" transform="rotate(20 1400 4830)"/><ellipse cx="2520" cy="4820" rx="190" ry="130" fill="#a8714c" transform="rotate(-20 2520 4820)"/>`;
  const random = seeded(92);
  const tools = Array.from({ length: 9 }, (_, index) => {
    const x = 250 + index * 430 + between(random, -60, 60);
    return `<g transform="translate(${x} ${between(random, 5480, 5820)}) rotate(${between(random, -70, 70)})"><rect x="-190" y="-14" width="260" height="28" rx="12" fill="${index % 2 ? '#c28a3b' : '#8c2f2a'}"/><path d="M70,-9h120l34,9l-34,9h-120z" fill="#c9ced0"/></g>`;
  });
  const sail = kiteSvg({ x: 1980, y: 5080, size: 1500, lean: 82, colours: ['madder', 'cream'], shape: 'diamond' });
  const wood = await veil(
    71,
    [40, 22, 10],
    {
      width: 1000,
      height: 330,
      value: (x, y, noise) =>
        0.5 * Math.abs(Math.sin(y * 0.22 + cloudy(noise, x / 260, y / 22, 4) * 7)) ** 3 + 0.12 * noise(x / 3, y * 2),
    },
    { width, height: 1320 },
  );
  const plaster = await veil(
    72,
    [24, 16, 14],
    { width: 800, height: 1200, value: (x, y, noise) => 0.32 + 0.5 * cloudy(noise, x / 210, y / 210, 6) },
    { width, height },
  );
  return layered(width, height, '#5d4a3e', [
    drawn(width, height, `${defs}<rect width="100%" height="100%" fill="url(#wall)"/>`),
    { ...plaster, left: 0, top: 0, blend: 'soft-light' },
    drawn(
      width,
      height,
      `${defs}${window}${shelf()}${kiteSvg({ x: 2900, y: 520, size: 760, lean: -22, colours: ['verdigris', 'ochre'], shape: 'delta' })}${kiteSvg({ x: 1740, y: 480, size: 520, lean: 12, colours: ['ochre', 'plum'], shape: 'diamond', tail: 5 })}<rect width="100%" height="100%" fill="url(#light)"/>${person}`,
    ),
    { ...(await weave(6, 46)) },
    drawn(width, height, `${defs}<path d="M0,4700H4000V6000H0Z" fill="url(#top)"/>`),
    { ...wood, left: 0, top: 4680 },
    drawn(
      width,
      height,
      `${defs}<path d="M0,4690H4000" stroke="#e0b57c" stroke-width="16" opacity=".6"/>${sail}${arms}${tools.join('')}<path d="M1400,4830Q2100,4560 2520,4820" stroke="#f0e6cf" stroke-width="9" fill="none"/><rect width="100%" height="100%" fill="url(#light)" opacity=".45"/>`,
    ),
    await grain(63, 14, 0.7),
  ]);
}
