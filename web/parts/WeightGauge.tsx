import type { Limit, Weight } from '@inkwell/core/model';
import { palette } from '../theme/palette.ts';

/** A thin bar: the share of the limit that a file takes. Empty while it is being measured. */
export function WeightGauge({ weight, limit }: { weight: Weight | null; limit: Limit }) {
  const share = weight ? Math.min(1, weight.bytes / limit.bytes) : 0;
  return (
    <span aria-hidden style={{ display: 'block', height: 3, background: palette.rule, margin: '2px 0' }}>
      <span
        style={{
          display: 'block',
          height: 3,
          width: `${share * 100}%`,
          background: weight && !weight.fits ? palette.blocker : palette.action,
        }}
      />
    </span>
  );
}
