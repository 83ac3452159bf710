// From pixels as they are encoded to planes, four pixels at a time. What is read beyond the last pixel of a row only goes
// where nothing is looked at.

import { bytes, lane, strideOf } from './rows';

/** Where one channel of four pixels lies in sixteen bytes, each widened to a whole number. */
function places(channels: i32, channel: i32): v128 {
  let mask = i8x16.splat(-1);
  mask = i8x16.replace_lane(mask, 0, <i8>channel);
  mask = i8x16.replace_lane(mask, 4, <i8>(channels + channel));
  mask = i8x16.replace_lane(mask, 8, <i8>(2 * channels + channel));
  return i8x16.replace_lane(mask, 12, <i8>(3 * channels + channel));
}

function picked(pixels: v128, at: v128): v128 {
  return f32x4.convert_i32x4_u(i8x16.swizzle(pixels, at));
}

function lightOf(red: v128, green: v128, blue: v128): v128 {
  return f32x4.add(
    f32x4.add(f32x4.mul(f32x4.splat(0.2126), red), f32x4.mul(f32x4.splat(0.7152), green)),
    f32x4.mul(f32x4.splat(0.0722), blue),
  );
}

/** The luminance (ITU-R BT.709) of 8-bit pixels as they are encoded; of fewer than three channels, the first. */
export function luminance(from: usize, channels: i32, width: i32, height: i32, to: usize): void {
  const stride = strideOf(width);
  const red = places(channels, 0);
  const green = places(channels, 1);
  const blue = places(channels, 2);
  for (let y = 0; y < height; y++) {
    let pixel = from + y * width * channels;
    const row = to + y * stride;
    for (let x = 0; x < width; x += lane) {
      const pixels = v128.load(pixel);
      const first = picked(pixels, red);
      const light = channels < 3 ? first : lightOf(first, picked(pixels, green), picked(pixels, blue));
      v128.store(row + x * bytes, light);
      pixel += lane * channels;
    }
  }
}

/**
 * The luminance and the colour differences (ITU-R BT.709, blue and red, round 128) of 8-bit pixels as they are encoded.
 *
 * @param toLight 0 where nobody wants the luminance
 */
export function lightAndColours(
  from: usize,
  channels: i32,
  width: i32,
  height: i32,
  toLight: usize,
  toBlue: usize,
  toRed: usize,
): void {
  const stride = strideOf(width);
  const red = places(channels, 0);
  const green = places(channels, 1);
  const blue = places(channels, 2);
  const middle = f32x4.splat(128);
  const ofBlue = f32x4.splat(<f32>(1 / 1.8556));
  const ofRed = f32x4.splat(<f32>(1 / 1.5748));
  for (let y = 0; y < height; y++) {
    let pixel = from + y * width * channels;
    const row = y * stride;
    for (let x = 0; x < width; x += lane) {
      const pixels = v128.load(pixel);
      const r = picked(pixels, red);
      const b = picked(pixels, blue);
      const light = lightOf(r, picked(pixels, green), b);
      const at = row + x * bytes;
      if (toLight !== 0) v128.store(toLight + at, light);
      v128.store(toBlue + at, f32x4.add(middle, f32x4.mul(f32x4.sub(b, light), ofBlue)));
      v128.store(toRed + at, f32x4.add(middle, f32x4.mul(f32x4.sub(r, light), ofRed)));
      pixel += lane * channels;
    }
  }
}

/** A change of luminance below this, in levels, is arithmetic noise. */
const leastChange: f32 = 0.01;

/**
 * Gives 8-bit pixels of three or four channels another luminance, and leaves them their colours: so much is kept of what became
 * lighter and of what became darker, and colour is multiplied where anything changed. Alpha stays.
 *
 * @param luminance one value for each of `count` pixels
 * @param to room for as many bytes as there are, and thirty-two more
 */
export function recolour(
  from: usize,
  channels: i32,
  count: i32,
  luminance: usize,
  lighter: f32,
  darker: f32,
  saturation: f32,
  to: usize,
): void {
  const red = places(channels, 0);
  const green = places(channels, 1);
  const blue = places(channels, 2);
  const opacity = i32x4.splat(0xff000000);
  const none = f32x4.splat(0);
  for (let pixel = 0; pixel < count; pixel += lane) {
    const pixels = v128.load(from + pixel * channels);
    const r = picked(pixels, red);
    const g = picked(pixels, green);
    const b = picked(pixels, blue);
    const light = lightOf(r, g, b);
    const change = f32x4.sub(v128.load(luminance + pixel * bytes), light);
    const share = v128.bitselect(f32x4.splat(lighter), f32x4.splat(darker), f32x4.gt(change, none));
    const lifted = f32x4.max(none, f32x4.min(f32x4.splat(255), f32x4.add(light, f32x4.mul(share, change))));
    const isChanged = f32x4.ge(f32x4.abs(change), f32x4.splat(leastChange));
    const own = v128.bitselect(f32x4.splat(saturation), f32x4.splat(1), isChanged);
    const newRed = asByte(f32x4.add(lifted, f32x4.mul(own, f32x4.sub(r, light))));
    const newGreen = asByte(f32x4.add(lifted, f32x4.mul(own, f32x4.sub(g, light))));
    const newBlue = asByte(f32x4.add(lifted, f32x4.mul(own, f32x4.sub(b, light))));
    const colour = v128.or(newRed, v128.or(i32x4.shl(newGreen, 8), i32x4.shl(newBlue, 16)));
    if (channels === 4) v128.store(to + pixel * 4, v128.or(colour, v128.and(pixels, opacity)));
    else
      v128.store(to + pixel * 3, i8x16.swizzle(colour, i8x16(0, 1, 2, 4, 5, 6, 8, 9, 10, 12, 13, 14, -1, -1, -1, -1)));
  }
}

/** The nearest whole level, 0..255. */
function asByte(levels: v128): v128 {
  return i32x4.trunc_sat_f32x4_u(f32x4.nearest(f32x4.min(f32x4.splat(255), f32x4.max(f32x4.splat(0), levels))));
}
