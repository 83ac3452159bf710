import { mkdirSync, readdirSync } from 'node:fs';
import { bodyBox } from '@inkwell/core/seeing';
import sharp from 'sharp';
import analyseTask from '../server/imaging/analysing/analyseTask.ts';
import { looksAt } from '../server/imaging/analysing/looking.ts';
import { proposalsOf } from '../server/imaging/analysing/proposalsOf.ts';
import { fromPixels, toPixels } from '../server/imaging/stages/pixels.ts';

const dir = process.argv[2]!,
  out = process.argv[3]!,
  re = new RegExp(process.argv[4] ?? '.');
mkdirSync(out, { recursive: true });
for (const f of readdirSync(dir).filter((f) => /\.(jpe?g|png)$/i.test(f) && re.test(f))) {
  const m = await sharp(dir + '/' + f).metadata();
  const [s, l] = [Math.min(m.width, m.height), Math.max(m.width, m.height)];
  const k = Math.min(1, Math.max(1024 / l, Math.min(640 / s, 3200 / l)));
  const detail = await toPixels(
    sharp(dir + '/' + f)
      .flatten({ background: '#fff' })
      .toColourspace('srgb')
      .resize(Math.round(m.width * k)),
  );
  const picture = await toPixels(fromPixels(detail).resize(896, 896, { fit: 'inside', withoutEnlargement: true }));
  const small = await toPixels(fromPixels(picture).resize(320, 320, { fit: 'inside', withoutEnlargement: true }));
  const looks = await looksAt(detail);
  const c = process.cpuUsage();
  const t = performance.now();
  const a = await analyseTask({ picture, small, looks } as any);
  const ms = Math.round(performance.now() - t);
  const cpu = process.cpuUsage(c);
  const p = proposalsOf(a, looks, detail, { words: picture, salient: small });
  console.log(
    f,
    `${m.width}x${m.height}`,
    'looks',
    looks.length,
    ms,
    'ms cpu',
    Math.round((cpu.user + cpu.system) / 1000),
    a.kind,
    'tilt',
    a.tilt?.toFixed(2),
    'body',
    JSON.stringify(bodyBox(picture)),
    p.map((x) => `${x.kind}:${x.name}:${x.sureness}${x.look ? ':' + x.look : ''}`).join(' | '),
  );
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${detail.width}" height="${detail.height}">${p.map((x) => `<rect x="${x.left}" y="${x.top}" width="${x.width}" height="${x.height}" fill="none" stroke="${x.kind === 'face' ? 'red' : x.kind === 'words' ? 'cyan' : x.kind === 'stands out' ? 'magenta' : 'lime'}" stroke-width="4" stroke-dasharray="${x.sureness === 'sure' ? 0 : 8}"/><text x="${x.left + 4}" y="${x.top + 20}" font-size="22" fill="yellow">${x.name}</text>`).join('')}</svg>`;
  await sharp(
    await fromPixels(detail)
      .composite([{ input: Buffer.from(svg) }])
      .png()
      .toBuffer(),
  )
    .resize(400, 300, { fit: 'contain', background: '#333' })
    .png()
    .toFile(`${out}/${f.replace(/\W/g, '_')}.png`);
}
