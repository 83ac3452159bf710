import { type CustomPlugin, optimize, type PluginConfig, type XastChild, type XastElement } from 'svgo';

/** A text of a drawing, as far as it takes that to set other words in its place. */
export interface SvgText {
  /** Which of the file's texts it is, from 0. */
  at: number;
  /** Its lines, with breaks between them. */
  text: string;
  /** Where its first baseline begins, has its middle, or ends, in units of its own coordinates. */
  x: number;
  y: number;
  anchor: 'start' | 'middle' | 'end';
  /** Units to one em, from line to line, and after every letter. */
  size: number;
  lineStep: number;
  letterSpacing: number;
  weight: number;
}

/** The path that takes the place of a text: empty where nothing does. */
export interface NewPath {
  at: number;
  text: string;
  path: string;
}

/** Rules of style sheets as attributes of what they hold for: what a text looks like is read off those. */
const asAttributes: PluginConfig[] = [
  { name: 'inlineStyles', params: { onlyMatchedOnce: false } },
  'convertStyleToAttrs',
];

/** Attributes that say how text is set: a path has none of them. */
const ofText =
  /^(x|y|dx|dy|rotate|textLength|lengthAdjust|text-anchor|letter-spacing|word-spacing|dominant-baseline|font.*|xml:space)$/;

type Attributes = Readonly<Record<string, string>>;

/** A length of CSS in units. @param em the size of an em, for what is measured in it */
function unitsOf(value: string | undefined, em: number): number | null {
  const [, number, unit] = /^\s*(-?[\d.]+(?:e-?\d+)?)\s*(px|pt|em|%)?/i.exec(value ?? '') ?? [];
  if (number === undefined) return null;
  const factor = unit === 'pt' ? 4 / 3 : unit === 'em' ? em : unit === '%' ? em / 100 : 1;
  return Number(number) * factor;
}

const weightOf = (value: string | undefined, inherited: number): number => {
  if (value === 'bold' || value === 'bolder') return 700;
  if (value === 'normal' || value === 'lighter') return 400;
  return Number(value) || inherited;
};

/** What texts have from what they stand in. */
interface Inherited {
  size: number;
  weight: number;
  anchor: SvgText['anchor'];
  letterSpacing: number;
}

/** What an element says of its text: its attributes, and what stays in its style, such as all of a font in one. */
function saidOf(attributes: Attributes): Attributes {
  const style = (attributes.style ?? '').split(';').flatMap((one) => {
    const [name = '', value = ''] = one.split(/:(.*)/s);
    return value.trim() === '' ? [] : [[name.trim(), value.replace('!important', '').trim()] as const];
  });
  const said: Attributes = { ...attributes, ...Object.fromEntries(style) };
  const [, before = '', size] = /^(.*?)(?:^|\s)([\d.]+(?:px|pt|em|%))/s.exec(said.font ?? '') ?? [];
  if (size === undefined) return said;
  const [weight = 'normal'] = /\b(bold|bolder|lighter|[1-9]00)\b/.exec(before) ?? [];
  return { 'font-size': size, 'font-weight': weight, ...said };
}

function inherit(from: Inherited, given: Attributes): Inherited {
  const attributes = saidOf(given);
  const size = unitsOf(attributes['font-size'], from.size) ?? from.size;
  const anchor = attributes['text-anchor'];
  return {
    size,
    weight: weightOf(attributes['font-weight'], from.weight),
    anchor: anchor === 'start' || anchor === 'middle' || anchor === 'end' ? anchor : from.anchor,
    letterSpacing: unitsOf(attributes['letter-spacing'], size) ?? from.letterSpacing,
  };
}

/** Lines of a text: a span with a place of its own across, or one further down, begins a new one. */
function linesOf(element: XastElement, lines: string[] = ['']): string[] {
  for (const child of element.children) {
    if (child.type === 'text' || child.type === 'cdata') lines[lines.length - 1] += child.value.replace(/\s+/g, ' ');
    if (child.type !== 'element') continue;
    const { x, y, dy } = child.attributes;
    const isNew =
      lines.join('').trim() !== '' && (x !== undefined || y !== undefined || (dy !== undefined && dy !== '0'));
    if (isNew) lines.push('');
    linesOf(child, lines);
  }
  return lines;
}

const spansOf = (element: XastElement): XastElement[] =>
  element.children.flatMap((child) => (child.type === 'element' ? [child, ...spansOf(child)] : []));

function textOf(element: XastElement, at: number, inherited: Inherited): SvgText | null {
  const text = linesOf(element)
    .map((line) => line.trim())
    .join('\n')
    .trim();
  if (text === '') return null;
  const spans = spansOf(element);
  const own = [element, ...spans].reduce((style, one) => inherit(style, one.attributes), inherited);
  const first = (name: 'x' | 'y') => [element, ...spans].find(({ attributes }) => attributes[name] !== undefined);
  const placeOf = (name: 'x' | 'y') => unitsOf(first(name)?.attributes[name], own.size) ?? 0;
  const [from, to] = spans.flatMap(({ attributes }) => unitsOf(attributes.y, own.size) ?? []);
  const steps = spans.flatMap(({ attributes }) => unitsOf(attributes.dy, own.size) ?? []).filter((step) => step > 0);
  const lineStep = steps[0] ?? (from !== undefined && to !== undefined && to > from ? to - from : own.size * 1.2);
  return { at, text, x: placeOf('x'), y: placeOf('y'), lineStep, ...own };
}

/** Calls `on` for every text of a drawing, in the order of the file. */
function eachText(
  children: readonly XastChild[],
  inherited: Inherited,
  on: (element: XastElement, inherited: Inherited) => void,
): void {
  for (const child of children) {
    if (child.type !== 'element') continue;
    if (child.name === 'text') on(child, inherited);
    else eachText(child.children, inherit(inherited, child.attributes), on);
  }
}

/** What a document begins with (SVG 2, initial values). */
const initial: Inherited = { size: 16, weight: 400, anchor: 'start', letterSpacing: 0 };

/** Reads a drawing and goes over its texts. @returns the drawing as it is afterwards */
function over(svg: string, on: (element: XastElement, inherited: Inherited) => void): string {
  const own: CustomPlugin = {
    name: 'texts',
    fn: () => ({ root: { enter: ({ children }) => eachText(children, initial, on) } }),
  };
  return optimize(svg, { plugins: [...asAttributes, own] }).data;
}

/** The texts of a drawing that still are text. @throws where it is no SVG */
export function textsOf(svg: string): SvgText[] {
  const texts: SvgText[] = [];
  let at = 0;
  over(svg, (element, inherited) => {
    const text = textOf(element, at, inherited);
    if (text) texts.push(text);
    at += 1;
  });
  return texts;
}

/** A drawing with paths instead of some of its texts, painted as these were. */
export function withPaths(svg: string, paths: readonly NewPath[]): string {
  const wanted = new Map(paths.map((one) => [one.at, one]));
  let at = 0;
  return over(svg, (element) => {
    const path = wanted.get(at);
    at += 1;
    if (!path) return;
    const kept = Object.entries(element.attributes).filter(([name]) => !ofText.test(name));
    element.name = 'path';
    element.attributes = { ...Object.fromEntries(kept), 'aria-label': path.text, d: path.path };
    element.children = [];
  });
}
