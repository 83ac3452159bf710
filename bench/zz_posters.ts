import { mkdirSync, writeFileSync } from 'node:fs';
import { makePoster } from './seeing/posters.ts';

mkdirSync('/tmp/ph/posters', { recursive: true });
const gt: any = {};
for (let i = 0; i < 60; i++) {
  const p = await makePoster(1000 + i);
  writeFileSync(`/tmp/ph/posters/${i}.png`, p.picture);
  gt[i] = { w: p.width, h: p.height, lines: p.lines };
}
writeFileSync('/tmp/ph/posters/gt.json', JSON.stringify(gt));
