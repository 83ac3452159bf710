import type { FramePosting, ProjectPosting } from '@inkwell/core/model';
import { Button } from 'antd';
import type { BenchFrame, FrameState } from '../../frames/benchFrame.ts';
import { useBenchStore } from '../../state/useBench.ts';
import { WordField } from './WordField.tsx';

const frameFields = [
  ['altText', 'Alternative text', 2000],
  ['caption', 'Caption', 5000],
  ['tags', 'Tags', 1000],
] as const satisfies [keyof FramePosting, string, number][];
const projectFields = [
  ['caption', 'Caption', 5000],
  ['tags', 'Tags', 1000],
] as const satisfies [keyof ProjectPosting, string, number][];

/** What is pasted where a frame is posted: its own words, and those that hold for the whole project. */
export function PostingFields({ one, state }: { one: BenchFrame; state: FrameState }) {
  const store = useBenchStore();
  const { frame, original, finishing, at } = one;
  const { posting } = state.settings;
  const above: Record<keyof FramePosting, string> = {
    altText: original.words.altText,
    ...finishing.project.posting,
  };
  const set = (key: keyof FramePosting, text: string | null) =>
    store.set('frames', frame.id, { posting: { ...posting, [key]: text } });
  return (
    <section className="file-words" aria-label="To paste where it is posted">
      <h2 className="minor-title">To paste where it is posted</h2>
      <p className="quiet small">
        For {at.network.name} {at.place.name}. What is left empty is taken from the picture and the project.
      </p>
      {frameFields.map(([key, label, most]) => {
        const own = posting[key];
        return (
          <div key={key} className="posting-field">
            <div className="row spread">
              <span className="quiet small">{label}</span>
              {own === null && above[key] !== '' && (
                <Button size="small" type="text" title={`Say nothing here: ${label}`} onClick={() => set(key, '')}>
                  None here
                </Button>
              )}
              {own === '' && above[key] !== '' && (
                <Button size="small" type="text" onClick={() => set(key, null)}>
                  Take that of the {key === 'altText' ? 'picture' : 'project'} again
                </Button>
              )}
            </div>
            <WordField
              key={`${frame.id} ${own}`}
              label={label}
              name={`${label} of this frame`}
              most={most}
              value={own ?? ''}
              placeholder={own === null && above[key] !== '' ? above[key] : 'None'}
              onSet={(text) => set(key, text === '' ? null : text)}
            />
          </div>
        );
      })}
      <h2 className="minor-title">With all posts of this project</h2>
      {projectFields.map(([key, label, most]) => {
        const value = finishing.project.posting[key];
        return (
          <WordField
            key={`${key} ${value}`}
            label={label}
            name={`${label} of all posts`}
            most={most}
            value={value}
            onSet={(text) =>
              store.set('projects', frame.projectId, { posting: { ...finishing.project.posting, [key]: text } })
            }
          />
        );
      })}
    </section>
  );
}
