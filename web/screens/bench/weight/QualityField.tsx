import { type FrameSettings, formatWeight, type Trial, type WeightUnit } from '@inkwell/core/model';
import { Button, Select, Slider } from 'antd';
import { sentenceOf } from '../../../api/client.ts';
import type { Encoding } from '../../../api/files/encodings.ts';
import { useBenchStore } from '../state/useBench.ts';
import type { Series } from './curve/series.ts';

/** Tries one quality after the other by hand; the true bytes follow. */
export function QualityField(props: {
  series: Series[];
  line: Series;
  tried: Encoding;
  trial: Trial | null;
  /** Why it could not be tried. */
  error: unknown;
  /** Whether what is tried is of the frame's own format. */
  isOwn: boolean;
  frameId: string;
  settings: FrameSettings;
  unit: WeightUnit;
  onTry: (series: Series, quality: number) => void;
}) {
  const { series, line, tried, trial, error, isOwn, frameId, settings, unit, onTry } = props;
  const store = useBenchStore();
  const { weighing } = settings;
  const hasQuality = line.qualities.length > 1;
  const set = () =>
    store.set('frames', frameId, {
      format: tried.format,
      weighing: { ...weighing, colours: tried.colours, mostQuality: hasQuality ? tried.quality : null },
    });
  return (
    <section className="weight-quality" aria-label="Tried by hand">
      <Select<string>
        size="small"
        aria-label="Format that is tried"
        value={line.key}
        onChange={(key) => {
          const next = series.find((each) => each.key === key);
          if (next) onTry(next, tried.quality);
        }}
        options={series.map(({ key, name }) => ({ value: key, label: name }))}
      />
      <Slider
        ariaLabelForHandle="Quality that is tried"
        tooltip={{ open: false }}
        min={5}
        max={95}
        disabled={!hasQuality}
        value={tried.quality}
        onChange={(quality) => onTry(line, quality)}
      />
      <output className="small weight-tried" data-quality={trial?.quality ?? ''}>
        {hasQuality && `quality ${tried.quality}: `}
        {trial ? `${trial.bytes.toLocaleString('en')} bytes` : error ? sentenceOf(error) : '…'}
        {trial && trial.bytes >= 100_000 ? ` (${formatWeight(trial.bytes, unit)})` : ''}
        {trial?.similarity ? `, ${trial.similarity.overall.toFixed(1)} of 100` : ''}
      </output>
      <Button
        size="small"
        disabled={isOwn && (!hasQuality || weighing.mostQuality === tried.quality)}
        title="The file is made like this, or at a lower quality where that is enough or the limit asks for it"
        onClick={set}
      >
        {hasQuality ? `Use at most ${tried.quality}` : 'Use this'}
      </Button>
      {weighing.mostQuality !== null && (
        <Button
          size="small"
          type="text"
          onClick={() => store.set('frames', frameId, { weighing: { ...weighing, mostQuality: null } })}
        >
          No maximum of your own (now {weighing.mostQuality})
        </Button>
      )}
    </section>
  );
}
