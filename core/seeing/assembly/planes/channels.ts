// From pixels as they are encoded to planes.

import { bytes, strideOf } from './rows';

/** The luminance (ITU-R BT.709) of 8-bit pixels as they are encoded; of fewer than three channels, the first. */
export function luminance(from: usize, channels: i32, width: i32, height: i32, to: usize): void {
  const stride = strideOf(width);
  for (let y = 0; y < height; y++) {
    let pixel = from + y * width * channels;
    const row = to + y * stride;
    for (let x = 0; x < width; x++) {
      const r = <f32>load<u8>(pixel);
      const light =
        channels < 3 ? r : <f32>0.2126 * r + <f32>0.7152 * load<u8>(pixel, 1) + <f32>0.0722 * load<u8>(pixel, 2);
      store<f32>(row + x * bytes, light);
      pixel += channels;
    }
  }
}

/** The colour differences (ITU-R BT.709, blue and red) of 8-bit pixels as they are encoded, round 128. */
export function colourDifferences(
  from: usize,
  channels: i32,
  width: i32,
  height: i32,
  toBlue: usize,
  toRed: usize,
): void {
  const stride = strideOf(width);
  for (let y = 0; y < height; y++) {
    let pixel = from + y * width * channels;
    const row = y * stride;
    for (let x = 0; x < width; x++) {
      const r = <f32>load<u8>(pixel);
      const b = <f32>load<u8>(pixel, 2);
      const light = <f32>0.2126 * r + <f32>0.7152 * load<u8>(pixel, 1) + <f32>0.0722 * b;
      store<f32>(toBlue + row + x * bytes, <f32>128 + (b - light) / <f32>1.8556);
      store<f32>(toRed + row + x * bytes, <f32>128 + (r - light) / <f32>1.5748);
      pixel += channels;
    }
  }
}
