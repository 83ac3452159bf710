import './review.css';
import { useOpenReview } from '../../api/together/reviews.ts';
import { counted } from '../../parts/counted.ts';
import { FailureLine, Skeleton } from '../../parts/States.tsx';
import { dayOf } from '../../parts/when.ts';
import { linkSecret } from '../door/linkSecret.ts';
import { ReviewedFrameCard } from './ReviewedFrameCard.tsx';

/** Where a review link leads: whoever has it sees the pictures as they will be delivered, and says of each whether it is fine. */
export function ClientReviewScreen() {
  const secret = linkSecret();
  const { query, answer } = useOpenReview(secret);
  const { data, error, refetch } = query;
  return (
    <main className="client-review">
      <header className="client-review-head">
        <img src="/mark.svg" alt="" width={22} height={22} />
        <h1>{data?.project ?? 'Pictures to look at'}</h1>
      </header>
      {!data && error && <FailureLine error={error} again={() => void refetch()} />}
      {!data && !error && <Skeleton height={320} />}
      {data && (
        <>
          <p className="quiet">
            {data.workspace} asks {data.name} to look at {counted(data.frames.length, 'picture')}. Say of each whether
            it is fine; what you say is kept at once. The link holds until {dayOf(data.endsAt)}.
          </p>
          <p role="status" className="small">
            {data.frames.filter((one) => one.answer?.planHash === one.planHash).length} of {data.frames.length}{' '}
            answered.
          </p>
          {data.frames.length === 0 && <p>There is nothing to look at yet.</p>}
          <ul className="client-review-frames">
            {data.frames.map((frame) => (
              <ReviewedFrameCard
                key={frame.id}
                secret={secret}
                frame={frame}
                onAnswer={(said) => answer.mutateAsync({ id: frame.id, planHash: frame.planHash, ...said })}
              />
            ))}
          </ul>
        </>
      )}
    </main>
  );
}
