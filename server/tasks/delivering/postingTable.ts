import { formatLabel } from '@inkwell/core/model';
import { alternativeText, type KitNetwork } from '@inkwell/core/posting';
import papaparse from 'papaparse';

/** What a spreadsheet needs to see that a file is UTF-8. */
const byteOrderMark = '\uFEFF';

/**
 * The posting kit as a table with one row a file, in posting order. What a spreadsheet would take for a formula is escaped: words come
 * from people.
 */
export function postingTable(kit: readonly KitNetwork[]): string {
  const rows = kit.flatMap(({ network, entries }) =>
    entries.flatMap(({ number, place, original, posts }) =>
      posts.flatMap(({ files }, at) =>
        files.map(({ line, path }) => ({
          Network: network,
          Number: number,
          Place: place,
          Post: at + 1,
          Original: original,
          File: path,
          Width: line.width,
          Height: line.height,
          Format: formatLabel[line.format],
          Bytes: line.bytes,
          'Alternative text': alternativeText(line),
          Caption: line.posting?.caption ?? '',
          Tags: line.posting?.tags ?? '',
        })),
      ),
    ),
  );
  return `${byteOrderMark}${papaparse.unparse(rows, { escapeFormulae: true, newline: '\r\n' })}\r\n`;
}
