import './review.css';
import { useReviews } from '../../api/together/reviews.ts';

/** What clients have said of a frame, by the name of each. */
function useSaidOf(projectId: string, frameId: string) {
  const { data } = useReviews(projectId).query;
  return (data ?? []).flatMap(({ id, name, answers }) =>
    answers.filter((one) => one.frameId === frameId).map((one) => ({ id, name, ...one })),
  );
}

/** The same in words, as lines of the list in which a frame is read. */
export function ClientSaid(props: { projectId: string; frameId: string; planHash: string | null }) {
  const { projectId, frameId, planHash } = props;
  const said = useSaidOf(projectId, frameId);
  return said.map(({ id, name, answer, word, planHash: of }) => (
    <li key={id} {...(answer === 'look again' ? { 'data-level': 'caution' } : { className: 'quiet' })}>
      {name}: {answer === 'fine' ? 'fine' : <strong>look again</strong>}
      {word && (
        <>
          {' '}
          <q>{word}</q>
        </>
      )}
      {planHash !== null && of !== planHash && <span className="quiet"> (changed since)</span>}
    </li>
  ));
}

/** In a word, where a frame is small: what weighs most of what was said. */
export function ClientMark({ projectId, frameId }: { projectId: string; frameId: string }) {
  const said = useSaidOf(projectId, frameId);
  if (said.length === 0) return null;
  const isWanted = said.some(({ answer }) => answer === 'look again');
  const who = said.map(({ name }) => name).join(', ');
  return (
    <span className="client-mark" data-answer={isWanted ? 'look again' : 'fine'} title={`Said by ${who}`}>
      {isWanted ? 'client: look again' : 'client: fine'}
    </span>
  );
}
