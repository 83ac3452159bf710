import { App, Button } from 'antd';
import { useRef } from 'react';
import type { z } from 'zod';

/** Takes in a file that this program has written: JSON that a schema describes. What is none is refused in words. */
export function ImportButton<Schema extends z.ZodType>(props: {
  schema: Schema;
  /** What is in it, such as "finish". */
  what: string;
  onRead: (value: z.infer<Schema>) => void;
}) {
  const { schema, what, onRead } = props;
  const { notification } = App.useApp();
  const input = useRef<HTMLInputElement>(null);
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
    <>
      <Button size="small" onClick={() => input.current?.click()}>
        Import …
      </Button>
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        aria-label={`A ${what} to import`}
        className="visually-hidden"
        tabIndex={-1}
        onChange={({ target }) => {
          const [chosen] = target.files ?? [];
          if (chosen) void read(chosen);
          target.value = '';
        }}
      />
    </>
  );
}
