import { fonts, palette, surrounds } from './palette.ts';

const kebab = (name: string) => name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);

/** Hands the palette and the fonts to the style sheets as custom properties. */
export function paintRoot(root: HTMLElement): void {
  for (const [name, colour] of Object.entries(palette)) root.style.setProperty(`--${kebab(name)}`, colour);
  for (const [name, grey] of Object.entries(surrounds)) root.style.setProperty(`--surround-${name}`, grey);
  root.style.setProperty('--font-title', fonts.title);
  root.style.setProperty('--font-text', fonts.text);
}
