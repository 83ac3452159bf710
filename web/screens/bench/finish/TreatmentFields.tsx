import { noCorrection, type TonePoints } from '@inkwell/core/finishing';
import {
  treatmentRanges as ranges,
  type ScalingKernel,
  type Sharpening,
  scalingKernels,
  type Treatment,
} from '@inkwell/core/model';
import { ChoiceField } from '../../../parts/fields/ChoiceField.tsx';
import { TuneField } from './TuneField.tsx';

const kernelWords: Record<ScalingKernel, string> = {
  lanczos3: 'Lanczos 3',
  lanczos2: 'Lanczos 2',
  mitchell: 'Mitchell',
  cubic: 'Cubic',
};

/** The numbers of a treatment. While one is dragged the picture follows; it is set when the hand rests. */
export function TreatmentFields(props: {
  treatment: Treatment;
  disabled: boolean;
  /** Where the points of the tone lie now; null while that is being found. */
  points: TonePoints | null;
  onDrag: (treatment: Treatment | null) => void;
  onSet: (treatment: Treatment) => void;
}) {
  const { treatment, disabled, points, onDrag, onSet } = props;
  /** A field for one number: where it stands in the treatment is said by how it is put in. */
  const tune = (
    label: string,
    hint: string,
    value: number,
    range: { least: number; most: number },
    step: number,
    put: (value: number) => Partial<Treatment>,
    shown: { times?: number; unit?: string } = {},
  ) => (
    <TuneField
      key={label}
      label={label}
      hint={hint}
      value={value}
      {...range}
      step={step}
      {...shown}
      disabled={disabled}
      onDrag={(next) => onDrag(next === null ? null : { ...treatment, ...put(next) })}
      onSet={(next) => onSet({ ...treatment, ...put(next) })}
    />
  );
  const sharpening = (which: 'sharpen' | 'second', prefix: string) => {
    const now = treatment[which];
    const put = (change: Partial<Sharpening>) => ({ [which]: { ...now, ...change } });
    return [
      tune(`${prefix}amount`, 'How strongly differences are amplified', now.amount, ranges.amount, 0.05, (amount) =>
        put({ amount }),
      ),
      tune(
        `${prefix}radius`,
        'How fine the detail is that is amplified',
        now.radius,
        ranges.radius,
        0.05,
        (radius) => put({ radius }),
        { unit: 'px' },
      ),
      tune(
        `${prefix}threshold`,
        'Differences up to so many levels are taken for noise and left alone',
        now.threshold,
        ranges.threshold,
        0.5,
        (threshold) => put({ threshold }),
      ),
    ];
  };
  const { compensate, tone } = treatment;
  const byHand = compensate.kind === 'by hand' ? compensate : { kind: 'by hand' as const, ...noCorrection };
  const [black, white] = [Math.round(points?.black[0] ?? 0), Math.round(Math.max(...(points?.white ?? [255])))];
  return (
    <div className="treatment">
      <h3>Sharpen</h3>
      {tune(
        'Oversize',
        'It is sharpened at so many times its final dimensions',
        treatment.oversize,
        ranges.oversize,
        0.1,
        (oversize) => ({ oversize }),
        { unit: '×' },
      )}
      {sharpening('sharpen', 'First ')}
      {sharpening('second', 'Second ')}
      {tune(
        'Halo limit',
        'No pixel gets brighter or darker than its surroundings by more than this share of their contrast',
        treatment.halo,
        ranges.share,
        0.01,
        (halo) => ({ halo }),
        { times: 100, unit: '%' },
      )}
      <ChoiceField
        label="Scaling"
        name="Scaling kernel"
        disabled={disabled}
        value={treatment.kernel}
        choices={scalingKernels.map((kernel) => [kernel, kernelWords[kernel]])}
        onChoose={(kernel) => onSet({ ...treatment, kernel })}
      />
      <h3>Brightness and colourfulness</h3>
      <ChoiceField
        label="Compensate"
        disabled={disabled}
        value={compensate.kind}
        choices={[
          ['measured', 'Measured, put back exactly'],
          ['by hand', 'By hand'],
          ['off', 'Off'],
        ]}
        onChoose={(kind) => onSet({ ...treatment, compensate: kind === 'by hand' ? byHand : { kind } })}
      />
      {compensate.kind === 'by hand' && [
        tune(
          'Midtones',
          'Above 1 they are lifted, below lowered',
          compensate.midtones,
          ranges.midtones,
          0.01,
          (midtones) => ({ compensate: { ...compensate, midtones } }),
        ),
        tune(
          'Colourfulness',
          'Above 1 colours get stronger, below paler',
          compensate.saturation,
          ranges.saturation,
          0.01,
          (saturation) => ({ compensate: { ...compensate, saturation } }),
        ),
      ]}
      <h3>Tone</h3>
      <ChoiceField
        label="Points"
        name="Tone"
        disabled={disabled}
        value={tone.kind}
        choices={[
          ['as it is', 'As it is'],
          ['automatic', 'Automatic'],
          ['paper', 'Paper becomes white'],
          ['by hand', 'By hand'],
        ]}
        onChoose={(kind) => {
          // By hand one begins where the automatic points lie.
          if (kind === 'by hand')
            onSet({ ...treatment, tone: { kind, black: Math.min(black, white - 2), white, midtones: 1 } });
          else onSet({ ...treatment, tone: kind === 'automatic' ? { kind, clip: 0.002 } : { kind } });
        }}
      />
      {(tone.kind === 'automatic' || tone.kind === 'paper') && (
        <p className="quiet small treatment-note">
          {points ? `Here ${black} becomes black and ${white} white.` : 'Looking for the points …'}
        </p>
      )}
      {tone.kind === 'automatic' &&
        tune(
          'Clipped share',
          'So much of the picture may become black, and as much white',
          tone.clip,
          ranges.clip,
          0.0005,
          (clip) => ({ tone: { ...tone, clip } }),
          { times: 100, unit: '%' },
        )}
      {tone.kind === 'by hand' && [
        tune(
          'Black point',
          'What is as dark as this becomes black',
          tone.black,
          { least: 0, most: 253 },
          1,
          (level) => ({ tone: { ...tone, black: Math.min(level, tone.white - 2) } }),
        ),
        tune(
          'White point',
          'What is as light as this becomes white',
          tone.white,
          { least: 2, most: 255 },
          1,
          (level) => ({ tone: { ...tone, white: Math.max(level, tone.black + 2) } }),
        ),
        tune(
          'Tone midtones',
          'Above 1 they are lifted, below lowered',
          tone.midtones,
          ranges.midtones,
          0.01,
          (midtones) => ({ tone: { ...tone, midtones } }),
        ),
      ]}
      {tune(
        'Saturation',
        'On top of what compensating does',
        treatment.saturation,
        ranges.saturation,
        0.01,
        (saturation) => ({ saturation }),
        { times: 100, unit: '%' },
      )}
    </div>
  );
}
