import { SaxesParser } from 'saxes';
import { UserError } from '../../../userError.ts';

/** What a drawing may point to: a part of itself, or a bitmap that it carries along. */
const own = /^\s*(#|data:image\/(png|jpeg|webp|gif)[;,])/i;
const active = ['script', 'foreignobject', 'iframe', 'audio', 'video', 'handler', 'listener'];

/** Every target of url(…), src(…) and @import in a piece of style. */
function styleTargets(style: string): string[] {
  // CSS escapes could hide a function's name, so they are undone first.
  const plain = style
    .replace(/\\([0-9a-f]{1,6})\s?/gi, (_, code: string) =>
      String.fromCodePoint(Math.min(0x10ffff, Number.parseInt(code, 16))),
    )
    .replace(/\/\*[\s\S]*?\*\//g, '');
  const functions = [...plain.matchAll(/(?:url|src|image|image-set)\(\s*["']?([^"')]*)/gi)].map(
    (match) => match[1] ?? '',
  );
  const imports = [...plain.matchAll(/@import\s*["']([^"']*)/gi)].map((match) => match[1] ?? '');
  return [...functions, ...imports];
}

/** Attributes of XML itself that change what others point to. */
const xmlNamespace = 'http://www.w3.org/XML/1998/namespace';

/**
 * Makes sure that an SVG is well formed, runs nothing and reaches for nothing outside itself. Names are read by their
 * namespaces: whatever prefix a document gives them, they mean the same.
 *
 * @returns the text without the line that says how it is encoded: it is UTF-8 from here on
 * @throws UserError that says what it reaches for
 */
export function plainSvg(text: string): string {
  const outside = (what: string) => {
    throw new UserError(
      `This SVG reaches for something outside itself (${what.slice(0, 80)}). Embed what it needs, or save it as PNG.`,
    );
  };
  const checkStyle = (style: string) => {
    for (const target of styleTargets(style)) if (!own.test(target)) outside(target);
  };
  const parser = new SaxesParser({ xmlns: true });
  let styleDepth = 0;
  parser.on('error', (error) => {
    throw new UserError(
      `This SVG is damaged or cut off: ${error.message.replace(/^undefined:/, 'at ')} Save it again where it was drawn.`,
    );
  });
  parser.on('doctype', (doctype) => {
    if (/<!ENTITY|SYSTEM|\[/i.test(doctype)) outside('a document type with entities');
  });
  parser.on('processinginstruction', ({ target }) => {
    if (target !== 'xml') outside(`a ${target} instruction`);
  });
  parser.on('opentag', ({ local, attributes }) => {
    const element = local.toLowerCase();
    if (active.includes(element)) outside(`a ${element} element`);
    if (element === 'style') styleDepth += 1;
    for (const { local: written, uri, name, value } of Object.values(attributes)) {
      const attribute = written.toLowerCase();
      if (attribute.startsWith('on')) outside(`the script in ${name}`);
      if (attribute === 'base' && uri === xmlNamespace) outside(`the base ${value}`);
      const links = attribute === 'href' || attribute === 'src';
      if (links && element !== 'a' && !own.test(value)) outside(value);
      // The name of a namespace is an address that nobody goes to.
      if (uri !== 'http://www.w3.org/2000/xmlns/') checkStyle(value);
    }
  });
  parser.on('closetag', ({ local }) => {
    if (local.toLowerCase() === 'style') styleDepth -= 1;
  });
  const onText = (value: string) => {
    if (styleDepth > 0) checkStyle(value);
  };
  parser.on('text', onText);
  parser.on('cdata', onText);
  parser.write(text).close();
  return text.replace(/^\uFEFF?\s*<\?xml[^>]*\?>/, '');
}
