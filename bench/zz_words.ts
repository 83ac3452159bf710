import { mkdirSync, readdirSync, readFileSync } from 'node:fs';
import sharp from 'sharp';
import { wordRegions } from '/work/main/core/seeing/words/wordRegions.ts';

const SIDE = 896;
async function of(path: string) {
  const { data, info } = await sharp(path)
    .flatten({ background: '#fff' })
    .toColourspace('srgb')
    .resize(SIDE, SIDE, { fit: 'inside', withoutEnlargement: true })
    .raw()
    .toBuffer({ resolveWithObject: true });
  const ras = { data, width: info.width, height: info.height, channels: info.channels as 3 };
  const c = process.cpuUsage().user;
  const r = wordRegions(ras);
  return { ras, info, r, ms: (process.cpuUsage().user - c) / 1000 };
}
const gt = JSON.parse(readFileSync('/tmp/ph/posters/gt.json', 'utf8'));
let found = 0,
  all = 0,
  wrong = 0,
  ms = 0,
  n = 0;
for (const k of Object.keys(gt)) {
  const { ras, r, ms: m } = await of(`/tmp/ph/posters/${k}.png`);
  ms += m;
  n++;
  const s = ras.width / gt[k].w;
  const boxes = gt[k].lines.map((g: any) => ({
    l: g.left * s,
    t: g.top * s,
    r: (g.left + g.width) * s,
    b: (g.top + g.height) * s,
  }));
  for (const b of boxes) {
    all++;
    const mask = new Uint8Array(Math.ceil(b.r - b.l));
    let ok = 0;
    for (const { rect: q } of r) {
      const h = Math.min(b.b, q.top + q.height) - Math.max(b.t, q.top);
      if (h < 0.6 * (b.b - b.t) * 0.9) continue;
      for (let x = 0; x < mask.length; x++) if (b.l + x >= q.left - 1 && b.l + x <= q.left + q.width + 1) mask[x] = 1;
    }
    for (const v of mask) ok += v;
    if (ok >= 0.93 * mask.length) found++;
    else if (process.argv[2])
      console.log(
        'miss',
        k,
        Math.round(b.l),
        Math.round(b.t),
        Math.round(b.r - b.l),
        Math.round(b.b - b.t),
        (ok / mask.length).toFixed(2),
      );
  }
  for (const { rect: q } of r) {
    let a = 0;
    for (const b of boxes)
      a +=
        Math.max(0, Math.min(b.r, q.left + q.width) - Math.max(b.l, q.left)) *
        Math.max(0, Math.min(b.b, q.top + q.height) - Math.max(b.t, q.top));
    if (a < 0.3 * q.width * q.height) {
      wrong++;
      if (process.argv[2]) console.log('wrong', k, JSON.stringify(q));
    }
  }
}
console.log(
  'found',
  found,
  'of',
  all,
  (found / all).toFixed(3),
  'wrong a poster',
  (wrong / n).toFixed(3),
  'ms',
  Math.round(ms / n),
);
const neg =
  'apple baboon brick building butterfly camera chelsea chicky_512 china coffee coins color flower fruits grass gravel home horse orange plant rubberwhale1 smarties squirrel_cls starry_night stuff text aloeL 000 001 002'.split(
    ' ',
  );
let c = 0;
for (const f of neg) {
  const p = [`/tmp/ph/p/${f}.png`, `/tmp/ph/p/${f}.jpg`].find((x) => {
    try {
      readFileSync(x);
      return true;
    } catch {
      return false;
    }
  })!;
  const { r, ms } = await of(p);
  if (r.length) console.log(f, r.length, ms);
  c += r.length;
}
console.log('on photographs', c, 'in', neg.length);
mkdirSync('/tmp/ph/wr', { recursive: true });
for (const d of ['/tmp/ph/p/', '/tmp/ph/few/'])
  for (const f of readdirSync(d).filter((f) => /scenetext|page|kite|logo|poster|starry|flyers|snap|rocket/.test(f))) {
    const { info, r, ras, ms } = await of(d + f);
    console.log(f, r.length, Math.round(ms));
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${info.width}" height="${info.height}">${r.map((x) => `<rect x="${x.rect.left}" y="${x.rect.top}" width="${x.rect.width}" height="${x.rect.height}" fill="none" stroke="red" stroke-width="3"/>`).join('')}</svg>`;
    await sharp(
      await sharp(ras.data, { raw: info })
        .composite([{ input: Buffer.from(svg) }])
        .png()
        .toBuffer(),
    )
      .resize(520, 400, { fit: 'contain', background: '#333' })
      .png()
      .toFile(`/tmp/ph/wr/${f.replace(/\W/g, '_')}.png`);
  }
