import { readdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { FontFamily } from '@inkwell/core/model';

/** A family of the program's own choice. Each width has a package of its own, which holds one file for every weight. */
interface Shipped {
  id: string;
  name: string;
  kind: string;
  /** Packages by per cent of the normal width. */
  packages: Record<number, string>;
  isHidden?: boolean;
}

const inOne = (id: string, name: string, kind: string): Shipped => ({ id, name, kind, packages: { 100: id } });
const fallback = (id: string, name: string, kind: string): Shipped => ({ ...inOne(id, name, kind), isHidden: true });

/** For the job's kinds of words, and for scripts that few of those have. All under the SIL Open Font Licence. */
const shipped: readonly Shipped[] = [
  {
    id: 'sofia-sans',
    name: 'Sofia Sans',
    kind: 'plain, up to heavy condensed',
    packages: { 100: 'sofia-sans', 88: 'sofia-sans-semi-condensed', 62: 'sofia-sans-extra-condensed' },
  },
  inOne('alegreya-sans', 'Alegreya Sans', 'humanist'),
  inOne('jost', 'Jost', 'geometric'),
  inOne('nunito', 'Nunito', 'rounded'),
  inOne('bitter', 'Bitter', 'slab'),
  inOne('playfair-display', 'Playfair Display', 'serif for display'),
  inOne('source-serif-4', 'Source Serif 4', 'serif for reading'),
  inOne('caveat', 'Caveat', 'handwritten'),
  inOne('kalam', 'Kalam', 'felt pen'),
  inOne('source-code-pro', 'Source Code Pro', 'monospaced'),
  inOne('saira-stencil-one', 'Saira Stencil One', 'stencil'),
  inOne('noto-sans', 'Noto Sans', 'for most alphabets'),
  fallback('noto-sans-arabic', 'Noto Sans Arabic', 'Arabic'),
  fallback('noto-sans-hebrew', 'Noto Sans Hebrew', 'Hebrew'),
  fallback('noto-sans-devanagari', 'Noto Sans Devanagari', 'Devanagari'),
  fallback('noto-sans-thai', 'Noto Sans Thai', 'Thai'),
  fallback('noto-sans-jp', 'Noto Sans JP', 'Japanese'),
  fallback('noto-sans-kr', 'Noto Sans KR', 'Korean'),
  fallback('noto-sans-sc', 'Noto Sans SC', 'Chinese'),
];

const require = createRequire(import.meta.url);

/** The upright files of a package: in a folder of its own each, named by its weight. */
function filesOf(
  id: string,
  width: number,
  name: string,
): { id: string; weight: number; width: number; path: string }[] {
  const folder = dirname(require.resolve(`@expo-google-fonts/${name}/package.json`));
  return readdirSync(folder)
    .filter((entry) => /^\d+[A-Za-z]+$/.test(entry))
    .map((entry) => {
      const weight = Number.parseInt(entry, 10);
      const file = readdirSync(join(folder, entry)).find((one) => one.endsWith('.ttf'));
      if (!file) throw new Error(`The font package ${name} has no file in ${entry}.`);
      return { id: `${id}-${width}-${weight}`, weight, width, path: join(folder, entry, file) };
    });
}

const only = (value: number) => ({ least: value, most: value });

/** The families that ship with the program, with the path of every file by its id. */
export function shippedFamilies(): { families: FontFamily[]; paths: ReadonlyMap<string, string> } {
  const paths = new Map<string, string>();
  const families = shipped.map(({ id, name, kind, packages, isHidden = false }): FontFamily => {
    const files = Object.entries(packages).flatMap(([width, one]) => filesOf(id, Number(width), one));
    for (const file of files) paths.set(file.id, file.path);
    return {
      id,
      name,
      kind,
      isHidden,
      isOwn: false,
      files: files.map((file) => ({ id: file.id, weight: only(file.weight), width: only(file.width) })),
    };
  });
  return { families, paths };
}
