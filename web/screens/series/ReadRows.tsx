import type { RowFindings, WordsItem } from '@inkwell/core/model';
import type { Meaning, ReadRow, Understood } from '@inkwell/core/series';
import { Select } from 'antd';
import { useGrowing } from '../../parts/many/useGrowing.tsx';

/** What a column can mean, in words. */
const meaningsFor = (items: readonly WordsItem[]): { value: Meaning; label: string }[] => [
  { value: 'picture', label: 'The picture' },
  ...items.map(({ id, name }) => ({ value: `words ${id}` as const, label: name })),
  ...items.map(({ id, name }) => ({ value: `short ${id}` as const, label: `${name}, short version` })),
  { value: 'name', label: 'What the picture is called' },
  { value: 'places', label: 'Its places' },
  { value: 'nothing', label: 'Nothing' },
];

/** The rows of a table with the meaning of each column, and what is wrong with them. */
export function ReadRows(props: {
  cells: readonly string[][];
  meant: Understood;
  rows: readonly ReadRow[];
  /** Of the rows that can be taken, in their order; those that come later are not known yet. */
  findings: readonly RowFindings[];
  items: readonly WordsItem[];
  /** The numbers of rows that get a copy of their picture. */
  copied: ReadonlySet<number>;
  onMean: (meanings: Meaning[]) => void;
}) {
  const { cells, meant, rows, findings, items, copied, onMean } = props;
  const { meanings, hasHeads } = meant;
  const options = meaningsFor(items);
  const taken = rows.filter(({ row }) => row !== null);
  const findingsOf = new Map(taken.map(({ number }, at) => [number, findings[at]?.findings ?? []]));
  const { drawn, end } = useGrowing(rows);
  const mean = (column: number, meaning: Meaning) =>
    // No two columns mean the same.
    onMean(meanings.map((one, at) => (at === column ? meaning : one === meaning ? 'nothing' : one)));
  const heads = hasHeads ? (cells[0] ?? []) : [];
  return (
    <div className="series-read-table">
      <table aria-label="How the table is understood">
        <thead>
          <tr>
            <th scope="col">Row</th>
            {meanings.map((meaning, column) => (
              <th scope="col" key={column}>
                <Select<Meaning>
                  size="small"
                  style={{ width: '100%' }}
                  popupMatchSelectWidth={false}
                  aria-label={`What column ${column + 1}${heads[column] ? `, ${heads[column]},` : ''} is`}
                  value={meaning}
                  options={options}
                  onChange={(chosen) => mean(column, chosen)}
                />
                {heads[column] && <span className="quiet small">“{heads[column]}”</span>}
              </th>
            ))}
            <th scope="col">What would be wrong</th>
          </tr>
        </thead>
        <tbody>
          {drawn.map(({ number, row, problems }) => {
            const said = row ? (findingsOf.get(number) ?? []) : problems;
            return (
              <tr key={number}>
                <td className="quiet">{number}</td>
                {meanings.map((meaning, column) => (
                  <td key={column} data-nothing={meaning === 'nothing'}>
                    {cells[number - 1]?.[column] || <span className="quiet">{emptyWords(meaning)}</span>}
                    {meaning === 'picture' && copied.has(number) && (
                      <div className="quiet small">gets a copy: a row above has it</div>
                    )}
                  </td>
                ))}
                <td className="series-said small">
                  {said.length > 0 && (
                    <ul className="series-findings" data-blocks={row === null}>
                      {said.map((one) => (
                        <li key={one}>{one}</li>
                      ))}
                    </ul>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {end}
    </div>
  );
}

/** What an empty cell comes to. */
function emptyWords(meaning: Meaning): string {
  if (meaning.startsWith('words')) return 'left out';
  return meaning === 'places' ? 'as chosen above' : '';
}
