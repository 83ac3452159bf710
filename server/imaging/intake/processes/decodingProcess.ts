import { giveWay } from '../../../running/giveWay.ts';
import { UserError } from '../../../userError.ts';
import { type DecodingTask, decodeCopy, decodePreview } from '../decoding.ts';
import { formatOf } from '../looking/inspect.ts';

/** What the process is asked, and what it answers. */
export type Asked = { number: number; task: DecodingTask } | { mayDraw: true };
export type Answered = {
  number: number;
} /** It is drawn from a description: how long that takes does not follow from its dimensions. Waits to be told that it may. */ & (
  | { isDrawn: true }
  | { result: unknown }
  | { refusal: { message: string; status: UserError['status'] } }
  | { failure: string }
);

const answer = (answered: Answered) => process.send?.(answered);

/** Whoever started it says how far it stands back. */
const ready = giveWay(Number(process.argv[2] ?? 0), true);

/** Begins the drawing that has been announced. */
let draw = () => {};

async function work(number: number, { kind, path, page, to }: DecodingTask): Promise<unknown> {
  await ready;
  if ((await formatOf(path)) === 'svg') {
    const told = new Promise<void>((resolve) => {
      draw = resolve;
    });
    answer({ number, isDrawn: true });
    await told;
  }
  if (kind === 'copy') return decodeCopy(path, page, to);
  await decodePreview(path, page, to);
  return null;
}

process.on('message', (asked: Asked) => {
  if ('mayDraw' in asked) {
    draw();
    return;
  }
  const { number, task } = asked;
  work(number, task).then(
    (result: unknown) => answer({ number, result }),
    (error: unknown) => {
      if (error instanceof UserError) answer({ number, refusal: { message: error.message, status: error.status } });
      else answer({ number, failure: error instanceof Error ? (error.stack ?? error.message) : String(error) });
    },
  );
});

// Whoever started this process is gone. A decoder that is busy would keep it from ending by itself.
process.on('disconnect', () => process.kill(process.pid, 'SIGKILL'));
// Ctrl-C at a terminal reaches all processes; the one that started this decides.
process.on('SIGINT', () => undefined);
