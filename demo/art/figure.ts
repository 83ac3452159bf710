export interface FigureLook {
  /** Middle of the feet. */
  x: number;
  y: number;
  /** Height in pixels. */
  height: number;
  coat: string;
  trousers: string;
  hat: string;
  scarf: string;
  skin: string;
  hair: string;
  /** Which way the figure looks: -1 left, 1 right. */
  looks: -1 | 1;
  arm: 'high' | 'low';
}

/** A head with face, hair and a knitted hat, about 110 units high, its middle at 0,0. */
export function headSvg(look: Pick<FigureLook, 'skin' | 'hair' | 'hat' | 'looks'>): string {
  const turn = look.looks * 7;
  return `
    <path d="M-36,-6Q-40,40 -26,52L26,52Q40,40 36,-6Z" fill="${look.hair}"/>
    <path d="M-33,-22Q-35,26 -17,46Q0,58 17,46Q35,26 33,-22Q0,-44 -33,-22Z" fill="${look.skin}"/>
    <path d="M${turn > 0 ? -33 : 33},-22Q${turn > 0 ? -35 : 35},26 ${turn > 0 ? -17 : 17},46Q${turn > 0 ? -8 : 8},50 ${-turn * 0.4},51Q${-turn * 2.2},20 ${-turn * 1.6},-28Z" fill="#2a1410" opacity=".16"/>
    <ellipse cx="${turn - 13}" cy="2" rx="3.6" ry="4.4" fill="#231a18"/><ellipse cx="${turn + 13}" cy="2" rx="3.6" ry="4.4" fill="#231a18"/>
    <circle cx="${turn - 12}" cy="0.5" r="1.2" fill="#fff"/><circle cx="${turn + 14}" cy="0.5" r="1.2" fill="#fff"/>
    <path d="M${turn - 20},-8q7,-5 13,-1M${turn + 7},-9q7,-3 13,2" stroke="${look.hair}" stroke-width="2.6" fill="none" stroke-linecap="round"/>
    <path d="M${turn},4q${look.looks * 6},10 ${-look.looks},13" stroke="#7d4434" stroke-width="2" fill="none" stroke-linecap="round" opacity=".8"/>
    <path d="M${turn - 11},29q11,10 22,0" stroke="#8a3b34" stroke-width="3" fill="#fff" stroke-linecap="round"/>
    <ellipse cx="${turn - 20}" cy="17" rx="7" ry="5" fill="#d0604c" opacity=".28"/><ellipse cx="${turn + 20}" cy="17" rx="7" ry="5" fill="#d0604c" opacity=".28"/>
    <path d="M-38,-14Q-42,-66 0,-68Q42,-66 38,-14Q0,-30 -38,-14Z" fill="${look.hat}"/>
    <path d="M-40,-22Q0,-38 40,-22L40,-8Q0,-24 -40,-8Z" fill="${look.hat}"/><path d="M-40,-22Q0,-38 40,-22L40,-8Q0,-24 -40,-8Z" fill="#000" opacity=".2"/>
    <path d="M-28,-30l-4,18M-14,-34l-3,19M0,-36v19M14,-34l3,19M28,-30l4,18M-20,-60q-6,14 -7,26M0,-66v28M20,-60q6,14 7,26" stroke="#fff" stroke-width="1.6" opacity=".22" fill="none"/>
    <circle cx="0" cy="-70" r="11" fill="${look.hat}"/><circle cx="-3" cy="-73" r="7" fill="#fff" opacity=".2"/>`;
}

/** A standing kite flyer with a spool in the hands. Drawn 640 units high. */
export function figureSvg(look: FigureLook): string {
  const scale = look.height / 640;
  const up = look.arm === 'high';
  const hand = up ? { x: look.looks * 92, y: -520 } : { x: look.looks * 84, y: -400 };
  const other = { x: hand.x - look.looks * 26, y: hand.y + 44 };
  const sleeve = (side: number, to: { x: number; y: number }) =>
    `<path d="M${side * 58},-452Q${(side * 74 + to.x) / 2},${to.y + 88} ${to.x},${to.y}" stroke="${look.coat}" stroke-width="38" stroke-linecap="round" fill="none"/>
     <path d="M${side * 52},-440Q${(side * 70 + to.x) / 2},${to.y + 96} ${to.x - look.looks * 6},${to.y + 12}" stroke="#000" stroke-width="12" stroke-linecap="round" fill="none" opacity=".16"/>
     <circle cx="${to.x}" cy="${to.y}" r="17" fill="${look.skin}"/>`;
  return `<g transform="translate(${look.x} ${look.y}) scale(${scale})">
    <ellipse cx="60" cy="0" rx="150" ry="16" fill="#1d1420" opacity=".35"/>
    <path d="M-46,-236L-54,-14L-10,-14L0,-200L12,-14L56,-14L46,-236Z" fill="${look.trousers}"/>
    <path d="M12,-14L56,-14L46,-236L6,-220Z" fill="#000" opacity=".2"/>
    <path d="M-60,-42h54v38q-40,10 -66,0q-2,-10 12,-16zM8,-42h54v22q14,6 14,16q-34,10 -68,0z" fill="#33261f"/>
    ${sleeve(-look.looks, other)}
    <path d="M-62,-470Q0,-500 62,-470Q84,-330 74,-190Q0,-170 -74,-190Q-84,-330 -62,-470Z" fill="${look.coat}"/>
    <path d="M20,-486Q62,-478 62,-470Q84,-330 74,-190Q50,-184 24,-182Q44,-330 20,-486Z" fill="#000" opacity=".2"/>
    <path d="M0,-480V-180M-50,-280q26,8 38,2M50,-284q-26,10 -38,2M-40,-420q8,70 -6,140M44,-410q-10,60 4,120" stroke="#000" stroke-width="3" opacity=".22" fill="none"/>
    <g fill="#e9dfc8" opacity=".9"><circle cx="7" cy="-400" r="4.5"/><circle cx="7" cy="-340" r="4.5"/><circle cx="7" cy="-280" r="4.5"/><circle cx="7" cy="-226" r="4.5"/></g>
    <g transform="translate(${look.looks * 3} -548)">${headSvg(look)}</g>
    <path d="M-46,-496Q0,-462 46,-496L50,-470Q0,-436 -50,-470Z" fill="${look.scarf}"/>
    <path d="M${-look.looks * 30},-474q${-look.looks * 50},30 ${-look.looks * 90},${22}l${-look.looks * 4},28q${look.looks * 60},6 ${look.looks * 104},-30z" fill="${look.scarf}"/>
    <path d="M-44,-484Q0,-452 44,-484M${-look.looks * 40},-462q${-look.looks * 40},26 ${-look.looks * 74},22" stroke="#fff" stroke-width="3" opacity=".35" fill="none" stroke-dasharray="7 6"/>
    ${sleeve(look.looks, hand)}
    <g transform="translate(${(hand.x + other.x) / 2} ${(hand.y + other.y) / 2}) rotate(${look.looks * 30})"><rect x="-9" y="-34" width="18" height="68" rx="7" fill="#8a5a2b"/><rect x="-14" y="-18" width="28" height="36" rx="8" fill="#e8dcc0"/><path d="M-14,-10h28M-14,-3h28M-14,4h28M-14,11h28" stroke="#b9a887" stroke-width="1.6"/></g>
  </g>`;
}

/** Where the line leaves the spool of a figure. */
export function spoolOf(look: FigureLook): { x: number; y: number } {
  const scale = look.height / 640;
  const up = look.arm === 'high';
  return { x: look.x + look.looks * (up ? 92 : 84) * scale, y: look.y - (up ? 520 : 400) * scale };
}
