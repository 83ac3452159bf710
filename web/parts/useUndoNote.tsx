import { App, Button } from 'antd';
import { sentenceOf } from '../api/client.ts';

const secondsShown = 12;

/** Tells in the corner what was done and offers to take it back; or what failed. */
export function useUndoNote() {
  const { notification } = App.useApp();
  return {
    done(said: string, undo: () => Promise<unknown>) {
      const key = crypto.randomUUID();
      const takeBack = () => {
        notification.destroy(key);
        undo().catch((error: unknown) =>
          notification.error({ title: 'Not taken back', description: sentenceOf(error) }),
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
    failed(error: unknown) {
      notification.error({ title: 'That did not work', description: sentenceOf(error) });
    },
  };
}
