/** What of the bench is shown where there is room for one part only: the wall stands for the view that takes its place as well. */
export type Part = 'wall' | 'original' | 'reading';

const viewWords: Record<string, string> = { close: 'Close-up', finish: 'Finish', weight: 'Weight' };

/** @param view what stands in the place of the wall and the original, if anything does */
export function partOf(text: string | null, view: string | null): Part {
  if (text === 'reading') return 'reading';
  return text === 'original' && !isView(view) ? 'original' : 'wall';
}

const isView = (view: string | null): view is string => view !== null && view in viewWords;

/** The ways between the parts of the bench, in reach of a thumb. */
export function BenchWays(props: { view: string | null; part: Part; onPart: (part: Part) => void }) {
  const { view, part, onPart } = props;
  const words: [Part, string | undefined][] = isView(view)
    ? [
        ['wall', viewWords[view]],
        ['reading', 'Reading'],
      ]
    : [
        ['wall', 'Wall'],
        ['original', 'Original'],
        ['reading', 'Reading'],
      ];
  return (
    <nav className="bench-ways" aria-label="Parts of the bench">
      {words.map(([value, word]) => (
        <button
          key={value}
          type="button"
          className="plain-button"
          aria-pressed={value === part}
          onClick={() => onPart(value)}
        >
          {word}
        </button>
      ))}
    </nav>
  );
}
