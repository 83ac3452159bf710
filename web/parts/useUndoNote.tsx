import { App, Button } from 'antd';
import { sentenceOf } from '../api/client.ts';

const secondsShown = 12;

/**
 * Tells in the corner what was done and offers to take it back; or what failed. For what can be pressed again before
 * the answer is there, go by the promise of each press: TanStack's callbacks of `mutate` are called for the last only.
 */
export function useUndoNote() {
  const { notification } = App.useApp();
  const note = {
    /** Waits until it is done, or has failed. */
    async after(doing: Promise<unknown>, said: string, undo: () => Promise<unknown>) {
      try {
        await doing;
      } catch (error) {
        note.failed(error);
        return;
      }
      note.done(said, undo);
    },
    done(said: string, undo: () => Promise<unknown>) {
      const key = crypto.randomUUID();
      const takeBack = () => {
        notification.destroy(key);
        undo().catch((error: unknown) =>
          notification.error({ title: 'Could not be undone', description: sentenceOf(error) }),
        );
      };
      notification.open({
        key,
        title: said,
        duration: secondsShown,
        actions: (
          <Button size="small" type="primary" onClick={takeBack}>
            Undo
          </Button>
        ),
      });
    },
    told(title: string, description: string) {
      notification.success({ title, description, duration: secondsShown });
    },
    /** @param key what is told by the same one stands there once, however often it is told */
    warned(title: string, description: string, key: string = crypto.randomUUID()) {
      notification.warning({ key, title, description, duration: secondsShown });
    },
    failed(error: unknown) {
      notification.error({ title: 'That did not work', description: sentenceOf(error) });
    },
  };
  return note;
}
