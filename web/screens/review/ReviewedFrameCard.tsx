import type { ReviewAnswerWord, ReviewedFrame } from '@inkwell/core/model';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { sentenceOf } from '../../api/client.ts';
import { useReviewPicture } from '../../api/together/reviews.ts';

const pictureWidth = 720;

/** One picture, as it will be delivered, and what is said of it. */
export function ReviewedFrameCard(props: {
  secret: string;
  frame: ReviewedFrame;
  onAnswer: (said: { answer: ReviewAnswerWord; word: string }) => Promise<unknown>;
}) {
  const { secret, frame, onAnswer } = props;
  const { id, planHash, picture, network, place, width, height, answer } = frame;
  const isAnswered = answer?.planHash === planHash;
  const { url, isError } = useReviewPicture(secret, id, planHash, Math.min(pictureWidth, width));
  const [word, setWord] = useState(answer?.word ?? '');
  const [isSending, setIsSending] = useState(false);
  const [problem, setProblem] = useState<unknown>(null);
  const what = `${picture}, ${network} ${place}`;
  const say = async (said: ReviewAnswerWord) => {
    setIsSending(true);
    setProblem(null);
    try {
      await onAnswer({ answer: said, word });
    } catch (error) {
      setProblem(error);
    } finally {
      setIsSending(false);
    }
  };
  return (
    <li className="sheet client-review-frame" data-answer={isAnswered ? answer.answer : 'none'}>
      <div className="client-review-picture" style={{ aspectRatio: `${width} / ${height}` }}>
        {url && <img src={url} alt={what} />}
        {isError && <span className="small">The picture could not be loaded. Reload the page.</span>}
      </div>
      <h2>
        {network} {place}
      </h2>
      <p className="quiet small">
        {picture}, {width} × {height} pixels
      </p>
      <Input.TextArea
        aria-label={`What you want to say of ${what}`}
        placeholder="A word, if you like"
        value={word}
        maxLength={500}
        autoSize={{ minRows: 1, maxRows: 5 }}
        onChange={({ target }) => setWord(target.value)}
      />
      <div className="row wrap">
        {(['fine', 'look again'] as const).map((one) => (
          <Button
            key={one}
            type={isAnswered && answer.answer === one ? 'primary' : 'default'}
            aria-label={`${one === 'fine' ? 'Fine' : 'Look again'}: ${what}`}
            aria-pressed={isAnswered && answer.answer === one}
            disabled={isSending}
            onClick={() => void say(one)}
          >
            {one === 'fine' ? 'Fine' : 'Look again'}
          </Button>
        ))}
        {answer && !isAnswered && <span className="small">It was changed since you answered.</span>}
      </div>
      {problem != null && (
        <p role="alert" className="small client-review-problem">
          {sentenceOf(problem)}
        </p>
      )}
    </li>
  );
}
