/** Every colour of the interface. The stage and Ant Design take them from here; style sheets through custom properties. */
export const palette = {
  ground: '#F4F1EA',
  sheet: '#FCFAF5',
  rule: '#DAD4C6',
  ink: '#1B2333',
  secondInk: '#566074',
  action: '#1F6F66',
  caution: '#A86A10',
  /** The same for words, which have to be read. */
  cautionInk: '#985E0C',
  blocker: '#A8322A',
  selection: '#2B4C8C',
  /** Faint outlines over a picture: light with a dark edge reads on any picture. */
  outline: '#FFFFFF',
  outlineEdge: '#10141F',
  /** Marks on an original: what is kept, what is avoided. */
  markKeep: '#8FE3D4',
  markAvoid: '#F2A65A',
} as const;

/** Neutral greys that pictures are judged on; never the paper colour. */
export const surrounds = { light: '#D6D6D6', middle: '#8C8C8C', dark: '#2E2E2E' } as const;
export type Surround = keyof typeof surrounds;

export const fonts = {
  title: "'Source Serif 4 Variable', Georgia, serif",
  text: "'Public Sans Variable', system-ui, sans-serif",
} as const;
