import { type Delivery, formatLabel, formatWeight } from '@inkwell/core/model';
import { alternativeText, type KitFile, type KitNetwork, orderWords, type Post } from '@inkwell/core/posting';
import escapeHtml from 'escape-html';

const style = `
  body { font: 14px/1.45 sans-serif; color: #1b2333; margin: 24px auto; max-width: 960px; padding: 0 16px; }
  h1 { font-size: 22px; } h2 { border-bottom: 1px solid #888; margin-top: 32px; } h3 { margin: 20px 0 6px; font-size: 16px; }
  .post { break-inside: avoid; margin: 8px 0 14px; } .box { display: inline-block; width: 12px; height: 12px; border: 1.5px solid #1b2333; margin-right: 8px; }
  .files { display: flex; flex-wrap: wrap; gap: 12px; margin: 6px 0; padding: 0; list-style: none; } .files li { width: 170px; overflow-wrap: anywhere; }
  .files img { max-width: 160px; max-height: 160px; border: 1px solid #ccc; display: block; } .quiet { color: #566074; font-size: 12.5px; }
  dl { display: grid; grid-template-columns: 120px 1fr; gap: 2px 10px; margin: 4px 0; } dt { color: #566074; } dd { margin: 0; white-space: pre-wrap; }`;

/** The address of a file from the page, which lies beside the folders. */
const href = (path: string) => path.split('/').map(encodeURIComponent).join('/');

function fileItem({ line, path }: KitFile, isNumbered: boolean): string {
  const number = isNumbered && line.piece ? `${line.piece.number}. ` : '';
  return `<li><img src="${escapeHtml(href(path))}" alt="${escapeHtml(alternativeText(line))}" loading="lazy">
    ${number}${escapeHtml(path.split('/').at(-1) ?? path)}<br><span class="quiet">${line.width} × ${line.height} px, ${formatLabel[line.format]}, ${formatWeight(line.bytes, line.limitUnit)}</span></li>`;
}

function wordList(post: Post): string {
  const [first] = post.files;
  if (!first) return '';
  const altTexts = [...new Set(post.files.map(({ line }) => alternativeText(line)))].join('\n');
  const words = [
    ['Alternative text', altTexts === '' ? 'none given' : altTexts],
    ['Caption', first.line.posting?.caption ?? ''],
    ['Tags', first.line.posting?.tags ?? ''],
  ] as const;
  const told = words.filter(([, text]) => text !== '');
  return `<dl>${told.map(([name, text]) => `<dt>${name}</dt><dd>${escapeHtml(text)}</dd>`).join('')}</dl>`;
}

/** A page to print and to post from, that needs nothing but the folders beside it. */
export function postingPage(
  project: string,
  delivery: Pick<Delivery, 'createdAt'>,
  kit: readonly KitNetwork[],
): string {
  const title = `${escapeHtml(project)}: what to post`;
  const networks = kit.map(({ network, entries }) => {
    const shown = entries.map((entry) => {
      const posts = entry.posts.map((post) => {
        const how = orderWords(entry, post);
        const items = post.files.map((file) => fileItem(file, post.files.length > 1)).join('\n');
        return `<div class="post"><span class="box"></span>${escapeHtml(how || 'One picture')}<ol class="files">${items}</ol>${wordList(post)}</div>`;
      });
      return `<h3>${entry.number}. ${escapeHtml(entry.place)} <span class="quiet">${escapeHtml(entry.original)}</span></h3>\n${posts.join('\n')}`;
    });
    return `<h2>${escapeHtml(network)}</h2>\n${shown.join('\n')}`;
  });
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>${title}</title><style>${style}</style></head>
<body><h1>${title}</h1>
<p class="quiet">Delivered ${escapeHtml(delivery.createdAt.slice(0, 16).replace('T', ' '))} UTC. Tick each post when it is posted.</p>
${networks.join('\n')}
</body></html>
`;
}
