/**
 * The width of a part's strokes: twice the distance from the middle of a stroke to its edge, along all middles. Distances are
 * those of the chamfer with weights 3 and 4 (Borgefors 1986).
 *
 * @param mask 1 where the part is, row by row, with a rim of one pixel
 * @returns in pixels; and by how much strokes differ, as a share of that
 */
export function strokeOf(mask: Uint8Array, width: number, height: number): { stroke: number; spread: number } {
  const far = new Uint16Array(mask.length);
  for (let y = 1; y < height - 1; y += 1) {
    for (let x = 1; x < width - 1; x += 1) {
      const at = y * width + x;
      if (mask[at] === 0) continue;
      const above = Math.min((far[at - width - 1] as number) + 4, (far[at - width + 1] as number) + 4);
      far[at] = Math.min(above, (far[at - width] as number) + 3, (far[at - 1] as number) + 3);
    }
  }
  let [sum, squares, count] = [0, 0, 0];
  for (let y = height - 2; y > 0; y -= 1) {
    for (let x = width - 2; x > 0; x -= 1) {
      const at = y * width + x;
      if (mask[at] === 0) continue;
      const below = Math.min((far[at + width - 1] as number) + 4, (far[at + width + 1] as number) + 4);
      far[at] = Math.min(far[at] as number, below, (far[at + width] as number) + 3, (far[at + 1] as number) + 3);
    }
  }
  for (let y = 1; y < height - 1; y += 1) {
    for (let x = 1; x < width - 1; x += 1) {
      const at = y * width + x;
      const value = far[at] as number;
      if (value === 0) continue;
      const isMiddle =
        value >= (far[at - 1] as number) &&
        value >= (far[at + 1] as number) &&
        value >= (far[at - width] as number) &&
        value >= (far[at + width] as number);
      if (!isMiddle) continue;
      const wide = (2 * value) / 3 - 1;
      sum += wide;
      squares += wide * wide;
      count += 1;
    }
  }
  const stroke = sum / Math.max(1, count);
  return { stroke, spread: Math.sqrt(Math.max(0, squares / Math.max(1, count) - stroke * stroke)) / stroke };
}
