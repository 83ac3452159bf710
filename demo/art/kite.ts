/** Colours of the workshop's cloth. */
export const cloth = {
  madder: '#b8402f',
  verdigris: '#2f7d73',
  ochre: '#d9962b',
  ink: '#27344f',
  cream: '#f3e6c8',
  plum: '#6d3b57',
  sky: '#6fa3b8',
} as const;
export type Cloth = keyof typeof cloth;

export interface KiteLook {
  x: number;
  y: number;
  /** Height from nose to tail joint, in pixels. */
  size: number;
  /** Degrees. */
  lean: number;
  colours: [Cloth, Cloth];
  shape: 'diamond' | 'delta' | 'box';
  tail?: number;
}

const shade = (points: string, dark: number) => `<polygon points="${points}" fill="#10141f" opacity="${dark}"/>`;

function diamond(a: string, b: string): string {
  const panels: [string, string, number][] = [
    ['0,-50 -34,-12 0,-12', a, 0],
    ['0,-50 34,-12 0,-12', b, 0.12],
    ['-34,-12 0,-12 0,50', b, 0.05],
    ['34,-12 0,-12 0,50', a, 0.2],
  ];
  const sails = panels.map(
    ([points, colour, dark]) => `<polygon points="${points}" fill="${colour}"/>${shade(points, dark)}`,
  );
  return `${sails.join('')}
    <circle cx="0" cy="-12" r="9" fill="${cloth.cream}"/><circle cx="0" cy="-12" r="5" fill="${a}"/>
    <path d="M0,-50V50M-34,-12H34" stroke="#3a2a1c" stroke-width="1.1"/>
    <path d="M-33,-12.5L-1,-49M33,-12.5L1,-49M-33,-11L-1,48M33,-11L1,48" stroke="#fff" stroke-width=".5" stroke-dasharray="1.6 1.2" opacity=".7"/>`;
}

function delta(a: string, b: string): string {
  return `<path d="M0,-46L-74,22Q-40,10 -18,26Q-8,18 0,34Q8,18 18,26Q40,10 74,22Z" fill="${a}"/>
    <path d="M0,-46L-38,-11L-22,22Q-10,16 0,34Q10,16 22,22L38,-11Z" fill="${b}"/>
    <path d="M0,-46L74,22Q40,10 18,26Q8,18 0,34Z" fill="#10141f" opacity=".16"/>
    <path d="M0,-46V34M0,-46L-74,22M0,-46L74,22" stroke="#2c2118" stroke-width="1.2" fill="none"/>
    <path d="M-2,-42L-70,20M2,-42L70,20" stroke="#fff" stroke-width=".5" stroke-dasharray="1.6 1.2" opacity=".7"/>`;
}

function box(a: string, b: string): string {
  const cell = (top: number, colour: string) => `
    <polygon points="-26,${top} 0,${top + 9} 0,${top + 33} -26,${top + 24}" fill="${colour}"/>
    <polygon points="0,${top + 9} 26,${top} 26,${top + 24} 0,${top + 33}" fill="${colour}"/>
    ${shade(`0,${top + 9} 26,${top} 26,${top + 24} 0,${top + 33}`, 0.28)}
    <polygon points="-26,${top} 0,${top - 8} 26,${top} 0,${top + 9}" fill="#10141f" opacity=".55"/>`;
  return `${cell(-42, a)}${cell(14, b)}<path d="M-26,-42V38M26,-42V38M0,-33V47" stroke="#3a2a1c" stroke-width="1.4"/>`;
}

function tailOf(kite: KiteLook): string {
  const bows = kite.tail ?? 0;
  let path = 'M0,50';
  let ribbons = '';
  for (let bow = 1; bow <= bows; bow += 1) {
    const x = Math.sin(bow * 1.1) * (6 + bow * 1.6);
    const y = 50 + bow * 17;
    path += `Q${-x * 0.8},${y - 10} ${x},${y}`;
    const colour = cloth[kite.colours[bow % 2] ?? 'madder'];
    ribbons += `<path d="M${x},${y}l-9,-5l1,10zM${x},${y}l9,-5l-1,10z" fill="${colour}"/>`;
  }
  return bows > 0 ? `<path d="${path}" stroke="#2c2118" stroke-width=".9" fill="none"/>${ribbons}` : '';
}

/** A kite as a piece of SVG. */
export function kiteSvg(kite: KiteLook): string {
  const [a, b] = [cloth[kite.colours[0]], cloth[kite.colours[1]]];
  const sail = kite.shape === 'diamond' ? diamond(a, b) : kite.shape === 'delta' ? delta(a, b) : box(a, b);
  return `<g transform="translate(${kite.x} ${kite.y}) rotate(${kite.lean}) scale(${kite.size / 100})">${tailOf(kite)}${sail}</g>`;
}
