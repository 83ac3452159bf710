import type { FinishFigures, PictureFigures } from '@inkwell/core/model';

const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
const level = (value: number) => value.toFixed(1);

const rows: { name: string; hint: string; of: keyof PictureFigures; words: (value: number) => string }[] = [
  { name: 'Acutance', hint: 'Energy of edges, in levels a pixel', of: 'acutance', words: level },
  { name: 'Luminance', hint: 'Mean, in levels of 255', of: 'luminance', words: level },
  { name: 'Chroma', hint: 'Mean, in levels of 255', of: 'chroma', words: level },
  { name: 'Noise', hint: 'How much flat areas vary, in levels', of: 'noise', words: level },
  { name: 'Black', hint: 'Share of the pixels that are black', of: 'shadows', words: percent },
  { name: 'White', hint: 'Share of the pixels that are white', of: 'lights', words: percent },
];

/** What was measured of the plain and the finished picture, side by side. */
export function Figures({ figures, isFinished }: { figures: FinishFigures | null; isFinished: boolean }) {
  if (!isFinished) return <p className="quiet small">A plain picture: there is nothing to compare.</p>;
  return (
    <table className="figures small" aria-label="Figures" data-measured={figures !== null}>
      <thead>
        <tr>
          <th scope="col">{figures ? '' : 'measuring …'}</th>
          <th scope="col">Plain</th>
          <th scope="col">Finished</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ name, hint, of, words }) => (
          <tr key={of}>
            <th scope="row" title={hint}>
              {name}
            </th>
            <td>{figures ? words(figures.plain[of]) : '–'}</td>
            <td>{figures ? words(figures.finished[of]) : '–'}</td>
          </tr>
        ))}
        <tr>
          <th scope="row" title="How far edges overshoot their surroundings, as a share of the contrast there">
            Halo
          </th>
          <td />
          <td>{figures ? percent(figures.halo) : '–'}</td>
        </tr>
      </tbody>
    </table>
  );
}
