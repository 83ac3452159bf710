import { type Original, OriginalSchema } from '@inkwell/core/model';
import { create } from 'zustand';
import { api, notConnected, noteStatus, pageHeaders } from '../client.ts';

/** One file on its way in. */
export interface Upload {
  id: number;
  file: File;
  state: 'waiting' | 'sending' | 'opening' | 'done' | 'failed';
  /** Share of the bytes that have been sent, 0..1. */
  sent: number;
  /** What it became, once it is there. */
  original?: Original;
  /** In words, where it failed. */
  failure?: string;
  cancel?: () => void;
}

interface Uploads {
  uploads: Upload[];
  /** Adds files to the queue; `done` is called with each original as it is there. */
  add(files: Iterable<File>, done: (original: Original) => void): void;
  cancel(id: number): void;
  retry(id: number): void;
  dismiss(id: number): void;
}

/** Two at a time: one is sent while the server opens the other. */
const together = 2;
let nextId = 1;
const whenDone = new Map<number, (original: Original) => void>();

/** The files on their way in, wherever in the interface they were dropped. They go on when the screen changes. */
export const useUploads = create<Uploads>()((set, get) => {
  const change = (id: number, values: Partial<Upload>) =>
    set(({ uploads }) => ({ uploads: uploads.map((one) => (one.id === id ? { ...one, ...values } : one)) }));

  const startNext = () => {
    const { uploads } = get();
    const busy = uploads.filter((one) => one.state === 'sending' || one.state === 'opening').length;
    const next = uploads.find((one) => one.state === 'waiting');
    if (!next || busy >= together) return;
    send(next);
    startNext();
  };

  const send = ({ id, file }: Upload) => {
    // fetch() cannot report how much has been sent.
    const request = new XMLHttpRequest();
    const form = new FormData();
    form.append('file', file, file.name);
    request.upload.onprogress = ({ loaded, total }) => change(id, { sent: total > 0 ? loaded / total : 0 });
    request.upload.onload = () => change(id, { state: 'opening', sent: 1 });
    request.onload = () => {
      noteStatus(request.status);
      const said = readAnswer(request.responseText);
      const original = OriginalSchema.safeParse(said);
      if (original.success) {
        change(id, { state: 'done', original: original.data });
        whenDone.get(id)?.(original.data);
      } else {
        const message =
          typeof said === 'object' && said !== null && 'message' in said ? String(said.message) : notConnected;
        change(id, { state: 'failed', failure: message });
      }
      startNext();
    };
    request.onerror = () => {
      change(id, { state: 'failed', failure: notConnected });
      startNext();
    };
    request.open('POST', `${api}/originals`);
    for (const [name, value] of Object.entries(pageHeaders())) request.setRequestHeader(name, value);
    change(id, { state: 'sending', sent: 0, cancel: () => request.abort() });
    request.send(form);
  };

  return {
    uploads: [],
    add(files, done) {
      const added = [...files].map((file): Upload => ({ id: nextId++, file, state: 'waiting', sent: 0 }));
      for (const { id } of added) whenDone.set(id, done);
      set(({ uploads }) => ({ uploads: [...uploads.filter((one) => one.state !== 'done'), ...added] }));
      startNext();
    },
    cancel(id) {
      get()
        .uploads.find((one) => one.id === id)
        ?.cancel?.();
      change(id, { state: 'failed', failure: 'Cancelled. Nothing was kept.' });
      startNext();
    },
    retry(id) {
      change(id, { state: 'waiting', sent: 0 });
      startNext();
    },
    dismiss(id) {
      whenDone.delete(id);
      set(({ uploads }) => ({ uploads: uploads.filter((one) => one.id !== id) }));
    },
  };
});

/** What the server said; null where it is no JSON, as when something between here and there has answered. */
function readAnswer(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
