import { App } from 'antd';
import type { z } from 'zod';
import { FileButton } from './FileButton.tsx';

/** Takes in a file that this program has written: JSON that a schema describes. What is none is refused in words. */
export function ImportButton<Schema extends z.ZodType>(props: {
  schema: Schema;
  /** What is in it, such as "finish". */
  what: string;
  onRead: (value: z.infer<Schema>) => void;
}) {
  const { schema, what, onRead } = props;
  const { notification } = App.useApp();
  const read = async (chosen: File) => {
    const parsed: unknown = await chosen
      .text()
      .then(JSON.parse)
      .catch(() => null);
    const { data, error } = schema.safeParse(parsed);
    if (!error) {
      onRead(data);
      return;
    }
    const [first] = error.issues;
    const where = first?.path.join(', ');
    const problem = parsed === null ? 'It is not JSON.' : `${where ? `${where}: ` : ''}${first?.message}`;
    notification.error({
      title: `${chosen.name} is not a ${what}`,
      description: `${problem} A ${what} is a file that this program has exported.`,
    });
  };
  return (
    <FileButton
      size="small"
      accept=".json,application/json"
      name={`A ${what} to import`}
      onFile={(file) => void read(file)}
    >
      Import …
    </FileButton>
  );
}
