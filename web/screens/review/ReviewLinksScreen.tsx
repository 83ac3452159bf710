import './review.css';
import { NewReviewSchema, type OpenProject, type Review } from '@inkwell/core/model';
import { Button, Input, InputNumber } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { useMay } from '../../api/access/workspaces.ts';
import { usePlaces } from '../../api/library/specBook.ts';
import { useReviews } from '../../api/together/reviews.ts';
import { counted } from '../../parts/counted.ts';
import { Listed } from '../../parts/making/Listed.tsx';
import { Making } from '../../parts/making/Making.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { ago, dayOf } from '../../parts/when.ts';
import { useOpenProject } from '../ProjectLayout.tsx';
import { useProjectFrames } from '../projectFrames.ts';

/** Links by which people without an account look at the project, and what they said. */
export function ReviewLinksScreen() {
  const project = useOpenProject();
  const { query, withdraw } = useReviews(project.id);
  const note = useUndoNote();
  return (
    <div className="page">
      <h2>Review links</h2>
      <p className="quiet page-about">
        Whoever has a link sees the pictures of this project as they will be delivered, and says of each whether it is
        fine. Nothing else opens by it, and no original. What they say stands on the bench as well.
      </p>
      {useMay('editor') && <NewReview projectId={project.id} />}
      <Listed query={query} none="There is no link yet.">
        {(all) =>
          all.map((review) => (
            <ReviewPart
              key={review.id}
              project={project}
              review={review}
              onWithdraw={() => void withdraw.mutateAsync(review.id).catch(note.failed)}
            />
          ))
        }
      </Listed>
    </div>
  );
}

function NewReview({ projectId }: { projectId: string }) {
  const { make } = useReviews(projectId);
  const [name, setName] = useState('');
  const [days, setDays] = useState<number | null>(14);
  const asked = NewReviewSchema.safeParse({ name, days });
  const makeOne = async () => {
    if (!asked.success) throw new Error('Nothing is asked for yet.');
    const { link } = await make.mutateAsync(asked.data);
    setName('');
    return link;
  };
  return (
    <section className="sheet page-part" aria-labelledby="new-review-title">
      <h2 id="new-review-title">A new link</h2>
      <Making
        told="This is the link. It is shown this once: send it to whom it is for."
        button="Make the link"
        isReady={asked.success}
        make={makeOne}
      >
        <Input
          aria-label="For whom the link is"
          placeholder="For whom"
          value={name}
          maxLength={80}
          style={{ width: 240 }}
          onChange={({ target }) => setName(target.value)}
        />
        <span className="row">
          holds for
          <InputNumber
            aria-label="Days for which it holds"
            min={1}
            max={90}
            value={days}
            onChange={setDays}
            style={{ width: 70 }}
          />
          days
        </span>
      </Making>
    </section>
  );
}

function ReviewPart(props: { project: OpenProject; review: Review; onWithdraw: () => void }) {
  const { project, review, onWithdraw } = props;
  const { name, madeBy, createdAt, endsAt, holds, answers } = review;
  const mayChange = useMay('editor');
  const places = usePlaces(project);
  const { frames } = useProjectFrames(project);
  const wanted = answers.filter(({ answer }) => answer === 'look again').length;
  return (
    <section className="sheet page-part" aria-label={`For ${name}`}>
      <div className="row spread wrap">
        <h2>For {name}</h2>
        {holds && mayChange && (
          <Button size="small" aria-label={`Withdraw the link for ${name}`} onClick={onWithdraw}>
            Withdraw
          </Button>
        )}
      </div>
      <p className="quiet small">
        Made {ago(createdAt)}
        {madeBy === null ? '' : ` by ${madeBy}`}; {holds ? `holds until ${dayOf(endsAt)}` : 'holds no more'}.
      </p>
      <p className="review-said">
        {answers.length === 0
          ? 'Nothing was said yet.'
          : `${counted(answers.length, 'answer')}, of which ${wanted} to look again.`}
      </p>
      <ul className="review-answers">
        {answers.map(({ frameId, answer, word, planHash, answeredAt }) => {
          const one = frames.find(({ frame }) => frame.id === frameId);
          const at = one && places.get(one.frame.placeId);
          if (!one || !at) return null;
          return (
            <li key={frameId}>
              <Link to={`/projects/${project.id}?frame=${frameId}&original=${one.original.id}`}>
                {one.original.name}, {at.network.name} {at.place.name}
              </Link>
              : {answer === 'fine' ? 'fine' : <strong>look again</strong>}
              {word && (
                <>
                  {' '}
                  <q>{word}</q>
                </>
              )}{' '}
              <span className="quiet small">
                {ago(answeredAt)}
                {one.planHash !== null && one.planHash !== planHash && ', changed since'}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
