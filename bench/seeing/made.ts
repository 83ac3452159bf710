import { intersection } from '@inkwell/core/geometry';
import type { Raster } from '@inkwell/core/planes';
import { luminancePlane, tiltOf, wordRegions } from '@inkwell/core/seeing';
import { target } from '@inkwell/core/testing';
import { lookAtPixels, wordsSide } from '@inkwell/server/imaging/analysing/analyse.ts';
import { type Pixels, toPixels } from '@inkwell/server/imaging/stages/pixels.ts';
import sharp from 'sharp';
import { makePoster, randomFrom } from './posters.ts';

export interface WordFigures {
  posters: number;
  lines: number;
  found: number;
  /** Regions of which less than a third lies on words. */
  wrong: number;
}

/** How many lines of made posters are found, whole, and how much else is taken for words. */
export async function wordFigures(posters = 60): Promise<WordFigures> {
  const figures = { posters, lines: 0, found: 0, wrong: 0 };
  for (let seed = 1; seed <= posters; seed += 1) {
    const poster = await makePoster(seed);
    const picture = await toPixels(
      sharp(poster.picture).resize(wordsSide, wordsSide, { fit: 'inside' }).toColourspace('srgb'),
    );
    const share = picture.width / poster.width;
    const lines = poster.lines.map(({ left, top, width, height }) => ({
      left: left * share,
      top: top * share,
      width: width * share,
      height: height * share,
    }));
    const regions = wordRegions(picture).map(({ rect }) => rect);
    for (const line of lines) {
      const covered = new Set<number>();
      for (const region of regions) {
        const shared = intersection(region, line);
        if (shared.height < 0.55 * line.height) continue;
        for (let x = Math.floor(shared.left - 1); x <= shared.left + shared.width + 1; x += 1) covered.add(x);
      }
      figures.lines += 1;
      if (covered.size >= 0.93 * line.width) figures.found += 1;
    }
    figures.wrong += regions.filter((region) => {
      const on = lines.reduce(
        (sum, line) => sum + intersection(region, line).width * intersection(region, line).height,
        0,
      );
      return on < 0.3 * region.width * region.height;
    }).length;
  }
  return figures;
}

export interface TiltFigures {
  pictures: number;
  said: number;
  /** Degrees, of those that are said. */
  median: number;
  p95: number;
  /** Of circles, leaves and sand. */
  saidOfOthers: number;
  others: number;
}

const size = { width: 900, height: 600 };

/** How well the tilt of made horizons and fronts is found, and whether any is told of what has none. */
export function tiltFigures(each = 50): TiltFigures {
  const random = randomFrom(2026);
  const between = (low: number, high: number) => low + random() * (high - low);
  const grainy = (grain: number, level: (x: number, y: number) => number) =>
    target(
      size.width,
      size.height,
      (x, y) => level(x - size.width / 2, y - size.height / 2) + grain * (random() - 0.5),
    );
  const turned = (degrees: number, level: (x: number, y: number) => number) => {
    const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
    return (x: number, y: number) => level(c * x + s * y, c * y - s * x);
  };
  const horizon = (degrees: number): Raster => {
    const [sky, step, at, sail] = [between(120, 220), between(20, 90), between(-120, 120), between(-280, 280)];
    const sea = turned(degrees, (_, y) => (y < at ? sky + y / 40 : sky - step + y / 30));
    const wide = between(20, 60);
    return grainy(between(8, 32), (x, y) => (Math.abs(x - sail) < wide - y / 8 && y < 120 ? 60 : sea(x, y)));
  };
  const front = (degrees: number): Raster => {
    const [wall, step, wide, high] = [between(120, 220), between(30, 90), between(70, 150), between(60, 120)];
    const within = (value: number, length: number) => ((value % length) + length) % length;
    const isPane = (x: number, y: number) => within(x, wide) > wide * 0.4 && within(y, high) > high * 0.35;
    return grainy(
      between(8, 32),
      turned(degrees, (x, y) => (isPane(x, y) ? wall - step : wall)),
    );
  };
  const errors: number[] = [];
  for (let at = 0; at < each; at += 1) {
    const degrees = -8 + (16 * at) / (each - 1);
    for (const picture of [horizon(degrees), front(degrees)]) {
      const tilt = tiltOf(luminancePlane(picture));
      if (tilt) errors.push(Math.abs(tilt.degrees - degrees));
    }
  }
  errors.sort((a, b) => a - b);
  // Bricks lie level, and nothing is said of what does.
  const others = textures(30).filter((picture) => Math.abs(tiltOf(luminancePlane(picture))?.degrees ?? 0) >= 0.3);
  return {
    pictures: 2 * each,
    said: errors.length,
    median: errors[errors.length >> 1] ?? Number.NaN,
    p95: errors[Math.floor(errors.length * 0.95)] ?? Number.NaN,
    saidOfOthers: others.length,
    others: 30,
  };
}

/** Sand, grain, circles, leaves, clouds and brickwork. */
function textures(count: number): Raster[] {
  const random = randomFrom(77);
  const between = (low: number, high: number) => low + random() * (high - low);
  const kinds = [
    () => {
      const [light, grain] = [between(80, 200), between(20, 90)];
      return () => light + grain * (random() - 0.5);
    },
    () => {
      const [long, bend] = [between(5, 30), between(5, 20)];
      return (x: number, y: number) => 150 + 18 * Math.sin(x / long + 2 * Math.sin(y / bend)) + 24 * (random() - 0.5);
    },
    () => {
      const [apart, x0, y0] = [between(5, 18), between(200, 700), between(150, 450)];
      return (x: number, y: number) => 128 + 80 * Math.sign(Math.sin(Math.hypot(x - x0, y - y0) / apart));
    },
    () => {
      const leaves = Array.from({ length: 500 }, () => {
        const turn = between(0, Math.PI);
        return {
          x: between(0, 900),
          y: between(0, 600),
          c: Math.cos(turn),
          s: Math.sin(turn),
          long: between(6, 34),
          level: between(40, 200),
        };
      });
      return (x: number, y: number) => {
        const leaf = leaves.findLast((one) => {
          const [dx, dy] = [x - one.x, y - one.y];
          if (Math.abs(dx) > one.long || Math.abs(dy) > one.long) return false;
          return ((one.c * dx + one.s * dy) / one.long) ** 2 + ((one.c * dy - one.s * dx) / (one.long / 3)) ** 2 < 1;
        });
        return leaf?.level ?? 100;
      };
    },
    () => {
      const waves = Array.from({ length: 7 }, () => ({
        x: between(-0.02, 0.02),
        y: between(-0.02, 0.02),
        at: between(0, 6),
      }));
      return (x: number, y: number) =>
        waves.reduce((sum, wave) => sum + 14 * Math.sin(wave.x * x + wave.y * y + wave.at), 150);
    },
    () => {
      const [wide, high, joint] = [between(50, 90), between(20, 34), between(3, 5)];
      return (x: number, y: number) => {
        const isJoint = y % high < joint || (x + (Math.floor(y / high) % 2) * (wide / 2)) % wide < joint;
        return (isJoint ? 185 : 120) + 30 * (random() - 0.5);
      };
    },
  ];
  return Array.from({ length: count }, (_, at) => {
    const level = (kinds[at % kinds.length] as () => (x: number, y: number) => number)();
    return target(size.width, size.height, level);
  });
}

/** How many things are proposed in pictures in which there is nothing. */
export async function proposedOfNothing(count = 30): Promise<{ pictures: number; proposals: number }> {
  let proposals = 0;
  for (const { data, width, height } of textures(count)) {
    const pixels: Pixels = { data: Buffer.from(data), width, height, channels: 3 };
    proposals += (await lookAtPixels(pixels)).proposals.length;
  }
  return { pictures: count, proposals };
}
