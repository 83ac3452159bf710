import type { LetterStyle, NamedLetterStyle } from '../../model/index.ts';

const [paper, ink, white] = ['#fffdf5', '#16202c', '#ffffff'];

/** What most styles have in common. */
const plain: LetterStyle = {
  family: 'sofia-sans',
  weight: 700,
  width: 100,
  letterSpacing: 0,
  lineHeight: 1,
  align: 'by place',
  case: 'as written',
  colour: paper,
  otherColour: null,
  setOff: { kind: 'none' },
};

const styled = (id: string, name: string, values: Partial<LetterStyle>): NamedLetterStyle => ({
  id,
  name,
  shipped: true,
  style: { ...plain, ...values },
});

/** Styles that ship with the program. */
export const shippedStyles: readonly NamedLetterStyle[] = [
  styled('broadside', 'Broadside', {
    weight: 900,
    width: 62,
    lineHeight: 0.92,
    case: 'capitals',
    setOff: { kind: 'shade', colour: '#0e1620', opacity: 0.72, reach: 0.55 },
  }),
  styled('board', 'Board', {
    weight: 800,
    width: 62,
    letterSpacing: 0.01,
    lineHeight: 0.96,
    case: 'capitals',
    setOff: { kind: 'plate', padding: 0.22, rounding: 0, colour: ink, opacity: 0.92 },
  }),
  styled('ticket', 'Ticket', {
    family: 'bitter',
    weight: 800,
    lineHeight: 1.06,
    colour: ink,
    setOff: { kind: 'plate', padding: 0.3, rounding: 0.16, colour: '#f2c14e', opacity: 1 },
  }),
  styled('tape', 'Tape', {
    family: 'source-code-pro',
    weight: 700,
    lineHeight: 1.12,
    colour: ink,
    setOff: { kind: 'plate', padding: 0.26, rounding: 0, colour: white, opacity: 1 },
  }),
  styled('caption', 'Caption', {
    family: 'alegreya-sans',
    weight: 800,
    lineHeight: 1.04,
    setOff: { kind: 'outline', width: 0.11, colour: '#1d2733' },
  }),
  styled('masthead', 'Masthead', {
    family: 'playfair-display',
    weight: 900,
    lineHeight: 1.02,
    setOff: { kind: 'shade', colour: '#1a1420', opacity: 0.7, reach: 0.6 },
  }),
  styled('book', 'Book cover', {
    family: 'source-serif-4',
    weight: 600,
    lineHeight: 1.1,
    colour: '#2a1f14',
    setOff: { kind: 'plate', padding: 0.42, rounding: 0, colour: '#f4ecd8', opacity: 0.96 },
  }),
  styled('note', 'Handwritten note', {
    family: 'caveat',
    weight: 700,
    lineHeight: 0.86,
    colour: '#1c2a52',
    setOff: { kind: 'plate', padding: 0.26, rounding: 0.1, colour: '#fffbe8', opacity: 0.95 },
  }),
  styled('felt', 'Felt pen', {
    family: 'kalam',
    weight: 700,
    lineHeight: 1.02,
    colour: white,
    setOff: { kind: 'outline', width: 0.13, colour: '#7a1f3d' },
  }),
  styled('crate', 'Crate', {
    family: 'saira-stencil-one',
    weight: 400,
    lineHeight: 1,
    case: 'capitals',
    colour: '#f6efe2',
    setOff: { kind: 'plate', padding: 0.28, rounding: 0, colour: '#6b2d1a', opacity: 0.94 },
  }),
  styled('buoy', 'Buoy', {
    family: 'nunito',
    weight: 900,
    lineHeight: 1.08,
    colour: white,
    setOff: { kind: 'plate', padding: 0.34, rounding: 0.55, colour: '#17665d', opacity: 1 },
  }),
  styled('bare', 'Bare', {
    family: 'jost',
    weight: 700,
    lineHeight: 1.06,
    colour: white,
    otherColour: ink,
    setOff: { kind: 'shadow', right: 0, down: 0.02, blur: 0.09, colour: '#0b1118', opacity: 0.95 },
  }),
];
