import { fileDimensions } from '@inkwell/core/geometry';
import {
  aimNames,
  formatLabel,
  type ImageFormat,
  ImageFormatSchema,
  namedAims,
  type Weighing,
} from '@inkwell/core/model';
import { bestQuality } from '@inkwell/core/planning';
import { uploadWidths } from '@inkwell/core/surviving';
import { tierWords, usualAim } from '@inkwell/core/weighing';
import { useSpecBook } from '../../../api/library/specBook.ts';
import { ChoiceField } from '../../../parts/fields/ChoiceField.tsx';
import { useOpenProject } from '../../ProjectLayout.tsx';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';
import { useBenchStore } from '../state/useBench.ts';
import { type AimChoice, aimWords, choiceOf } from './aims.ts';
import { DimensionsField } from './DimensionsField.tsx';

/** How a frame's file is to be encoded. */
export function WeighingFields({ one, state }: { one: BenchFrame; state: FrameState }) {
  const store = useBenchStore();
  const { place } = one.at;
  const { settings } = state;
  const { weighing, format } = settings;
  const set = (change: Partial<Weighing>) =>
    store.set('frames', one.frame.id, { weighing: { ...weighing, ...change } });
  const sheet = useSpecBook(useOpenProject()).data?.find(({ slug }) => slug === one.at.network.slug);
  const offered = sheet ? uploadWidths(place, one.original, settings, sheet) : [null];
  const widths = offered.includes(settings.uploadWidth) ? offered : [...offered, settings.uploadWidth];
  const usual = usualAim(state.budgetBytes, state.file);
  const aim = weighing.aim ?? usual;
  const promise =
    aim.kind === 'as good as fits'
      ? `The highest quality up to ${weighing.mostQuality ?? bestQuality} whose file fits the limit.${weighing.mostQuality === null ? ' Take a quality by hand to go up to 100.' : ''}`
      : `The lightest file that holds ${tierWords[aim.level].name}: ${tierWords[aim.level].promise}`;
  return (
    <section className="weighing" aria-label="How it is encoded">
      <ChoiceField<ImageFormat>
        label="Format"
        name="Format of the file"
        value={format}
        choices={ImageFormatSchema.options
          .filter((each) => place.formats.includes(each) || each === format)
          .map((each) => [each, formatLabel[each]] as const)}
        disabled={false}
        onChoose={(next) => store.set('frames', one.frame.id, { format: next })}
      />
      {format === 'png' && (
        <ChoiceField<Weighing['colours']>
          label="Colours"
          value={weighing.colours}
          choices={[
            ['full', 'All of them'],
            ['palette', 'A palette of up to 256'],
            ['dithered palette', 'A palette, dithered'],
          ]}
          disabled={false}
          onChoose={(colours) => set({ colours })}
        />
      )}
      {(format === 'jpeg' || format === 'avif') && (
        <ChoiceField<Weighing['chroma']>
          label="Colour detail"
          value={weighing.chroma}
          choices={[
            ['measured', 'Fine where it would smear'],
            ['4:4:4', 'Fine (4:4:4)'],
            ['4:2:0', 'Half as fine (4:2:0)'],
          ]}
          disabled={false}
          onChoose={(chroma) => set({ chroma })}
        />
      )}
      {!(format === 'png' && weighing.colours === 'full') && (
        <ChoiceField<AimChoice>
          label="Bytes"
          name="What bytes are spent on"
          value={weighing.aim ? choiceOf(weighing.aim) : 'place'}
          choices={[
            ['place', `Usual: ${aimWords[choiceOf(usual)]}`],
            ...aimNames.map((each) => [each, aimWords[each]] as const),
          ]}
          disabled={false}
          onChoose={(choice) => set({ aim: choice === 'place' ? null : namedAims[choice] })}
        />
      )}
      {!(format === 'png' && weighing.colours === 'full') && <p className="quiet small">{promise}</p>}
      {widths.length > 1 && (
        <ChoiceField<string>
          label="Dimensions"
          name="Dimensions of the file"
          value={String(settings.uploadWidth)}
          choices={widths.map((width) => {
            const { width: across, height } = fileDimensions(place, one.original, { ...settings, uploadWidth: width });
            const words = width === null ? 'of the place' : across < state.output.width ? 'fewer' : 'more';
            return [String(width), `${across} × ${height} px, ${words}`] as const;
          })}
          disabled={false}
          onChoose={(width) =>
            store.set('frames', one.frame.id, { uploadWidth: width === 'null' ? null : Number(width) })
          }
        />
      )}
      <DimensionsField one={one} state={state} />
    </section>
  );
}
