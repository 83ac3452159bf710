import { type Heard, HeardSchema } from '@inkwell/core/model';
import { api } from '../client.ts';

const againMs = 2000;
const channelName = `inkwell ${api}`;

/**
 * Hears of what others do. Of all pages of a workspace in this browser one asks the server, and tells the rest: a browser opens only
 * a few connections to a server, and each stream holds one.
 *
 * @returns ends it
 */
export function hearOthers(hear: (heard: Heard) => void): () => void {
  const ending = new AbortController();
  const { signal } = ending;
  const channel = new BroadcastChannel(channelName);
  channel.onmessage = ({ data }) => hear(HeardSchema.parse(data));
  const tell = (heard: Heard) => {
    hear(heard);
    channel.postMessage(heard);
  };
  void navigator.locks
    .request(channelName, { signal }, () => listenUntil(signal, tell))
    // Whoever leaves while another page asks was never asked to.
    .catch(() => undefined);
  return () => {
    ending.abort();
    channel.close();
  };
}

/** Hears the stream of the server until the page has enough of it; one that breaks is opened again. */
async function listenUntil(signal: AbortSignal, tell: (heard: Heard) => void): Promise<void> {
  while (!signal.aborted) {
    await oneStream(signal, tell);
    if (!signal.aborted) await new Promise((resolve) => setTimeout(resolve, againMs));
  }
}

function oneStream(signal: AbortSignal, tell: (heard: Heard) => void): Promise<void> {
  return new Promise((ended) => {
    const source = new EventSource(`${api}/together/events`);
    const end = () => {
      source.close();
      ended();
    };
    // Whatever came between two streams was missed.
    source.onopen = () => tell({ is: 'missed' });
    source.onmessage = ({ data }: MessageEvent<string>) => tell(HeardSchema.parse(JSON.parse(data)));
    source.onerror = end;
    signal.addEventListener('abort', end, { once: true });
  });
}
