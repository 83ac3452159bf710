import type { Heard } from '@inkwell/core/model';
import type { Response } from 'express';

/** How often a stream says that it is still there, and it is looked whether whoever hears it still may. */
const beatMs = 15_000;

/** So many bytes may wait for a page. */
const mostUnheard = 1_000_000;

interface Stream {
  response: Response;
  workspaceId: string;
  beat: NodeJS.Timeout;
}

/** The pages that hear of changes, each of one workspace, as server-sent events. */
export class Streams {
  private readonly all = new Set<Stream>();
  private isClosed = false;

  /** Lets a page hear from now on. @param mayStill asked again and again: somebody may have been taken out */
  open(response: Response, workspaceId: string, mayStill: () => Promise<boolean>): void {
    response.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' });
    response.flushHeaders();
    const end = () => {
      clearInterval(stream.beat);
      this.all.delete(stream);
      response.end();
    };
    const beat = setInterval(() => {
      mayStill().then((may) => {
        if (may) response.write(':\n\n');
        else end();
      }, end);
    }, beatMs);
    const stream: Stream = { response, workspaceId, beat };
    response.on('close', end);
    if (this.isClosed) end();
    else this.all.add(stream);
  }

  /** @param workspaceId null for all */
  tell(workspaceId: string | null, heard: Heard): void {
    const text = `data: ${JSON.stringify(heard)}\n\n`;
    for (const { response, workspaceId: of } of this.all) {
      if (workspaceId !== null && of !== workspaceId) continue;
      // Who does not keep up hears no more: the page asks again, and knows that it has missed something.
      if (response.writableLength > mostUnheard) response.destroy();
      else response.write(text);
    }
  }

  /** Ends all of them: pages ask another server, or this one when it is there again. */
  close(): void {
    this.isClosed = true;
    for (const { response } of this.all) response.end();
  }
}
