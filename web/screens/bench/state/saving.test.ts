import { type Frame, type FrameSettings, plainSettings } from '@inkwell/core/model';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { Bench } from './bench.ts';
import { connectionOf } from './benchState.ts';
import { frameChange } from './frameChange.ts';
import { looseSettingsOf } from './kinds.ts';
import { type Outcome, Saver } from './saver.ts';
import { type Drawer, Shelf } from './shelf.ts';

/** A storage that can be full. What was kept by an older version lacks a setting that there is now. */
class TestDrawer implements Drawer {
  isFull = false;
  private readonly kept = new Map<string, string>();
  get length() {
    return this.kept.size;
  }
  key = (index: number) => [...this.kept.keys()][index] ?? null;
  getItem = (key: string) => this.kept.get(key) ?? null;
  removeItem = (key: string) => void this.kept.delete(key);
  setItem(key: string, text: string) {
    if (this.isFull) throw new Error('QuotaExceededError');
    this.kept.set(key, text);
  }
  forgetSetting() {
    for (const [key, text] of this.kept) this.kept.set(key, text.replaceAll(/"bridged":(true|false),/g, ''));
  }
}

const rowIds = ['00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000002'] as const;
const refusedStretch = 3;

/** Frames as a server keeps them, and which of the widths that were typed it has taken, in order. */
class TestServer {
  readonly rows = new Map<string, Frame>(
    rowIds.map((id) => [
      id,
      {
        ...plainSettings,
        id,
        projectId: '00000000-0000-4000-8000-0000000000aa',
        originalId: '00000000-0000-4000-8000-0000000000bb',
        placeId: 'sunpane/story',
        window: { centreX: 1, centreY: 1, span: 1, turn: 0, mirror: false },
        format: 'jpeg',
        version: 1,
      },
    ]),
  );
  readonly taken: number[] = [];

  patch(id: string, version: number, settings: object): Outcome {
    const row = this.rows.get(id);
    if (!row) return { is: 'gone' };
    const next = { ...row, ...settings, version: version + 1 };
    if (next.stretch === refusedStretch) return { is: 'refused', reason: 'It is too wide.' };
    if (version !== row.version) return { is: 'elsewhere', row };
    this.rows.set(id, next);
    if (next.window.span !== row.window.span) this.taken.push(next.window.span);
    return { is: 'saved', row: next };
  }
}

interface Request {
  arrive: () => Outcome;
  outcome: Outcome | null;
  answer: (outcome: Outcome) => void;
}

/** A page that has the project open. */
class Page {
  bench!: Bench;
  requests: Request[] = [];
  private timers: (() => void)[] = [];
  /** What was typed last in every row, and not over the wire yet, as far as the page knows. */
  readonly typed = new Map<string, number>();

  constructor(
    private readonly server: TestServer,
    private readonly drawer: TestDrawer,
    private readonly name: string,
  ) {
    this.load();
  }

  /** The version that every row was seen in last. */
  readonly versions = new Map<string, number>();

  /** A new page instead of the old one. What that had sent may still arrive, but nobody hears the answer. */
  load() {
    this.requests = [];
    this.timers = [];
    this.versions.clear();
    this.bench = new Bench(new Shelf('p', () => this.drawer, this.name));
    this.read([...this.server.rows.values()]);
    const { requests, server, timers } = this;
    new Saver(this.bench, {
      send: (_, rows) =>
        Promise.all(
          rows.map(
            ({ id, version, settings, saved }) =>
              new Promise<Outcome>((answer) => {
                const change = frameChange(saved as Frame, settings as FrameSettings);
                requests.push({ arrive: () => server.patch(id, version, change), outcome: null, answer });
              }),
          ),
        ),
      heard: () => undefined,
      later: (task) => void timers.push(task),
    });
  }

  read = (frames: Frame[]) => this.bench.adopt({ frames, originals: [], projects: [], finishes: [] });

  tick() {
    for (const task of this.timers.splice(0)) task();
  }

  phase = (id: string) => this.bench.getState().phases.frames[id]?.is;
  span = (id: string) => this.bench.getState().settings.frames[id]?.window.span;
}

type Event =
  | { do: 'type'; page: number; row: number; refused: boolean }
  | { do: 'arrive' | 'answer' | 'lose'; page: number; which: number }
  | { do: 'tick' | 'reload' | 'read' | 'read late'; page: number }
  | { do: 'decide'; page: number; row: number; mine: boolean }
  | { do: 'full' | 'roomy' | 'new version' }
  | { do: 'remove'; row: number };

const page = fc.constantFrom(0, 1);
const row = fc.constantFrom(0, 1);
const which = fc.nat(5);
const event: fc.Arbitrary<Event> = fc.oneof(
  {
    weight: 6,
    arbitrary: fc.record({ do: fc.constant('type' as const), page, row, refused: fc.boolean() }),
  },
  { weight: 9, arbitrary: fc.record({ do: fc.constantFrom('arrive', 'answer', 'lose'), page, which }) },
  { weight: 5, arbitrary: fc.record({ do: fc.constantFrom('tick', 'reload', 'read', 'read late'), page }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('decide' as const), page, row, mine: fc.boolean() }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constantFrom('full', 'roomy', 'new version') }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('remove' as const), row: fc.constant(1) }) },
);

const turn = () => new Promise((resolve) => setImmediate(resolve));

test('whatever happens on the way, nothing typed is lost or saved twice, and two pages end alike', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(event, { maxLength: 60, size: 'max' }), fc.constantFrom(1, 2), async (events, count) => {
      const server = new TestServer();
      const drawer = new TestDrawer();
      const pages = ['one', 'two'].slice(0, count).map((name) => new Page(server, drawer, name));
      let last = 1;
      /** What may be missing in the end, because somebody decided so or it could not be kept. */
      const forgone = new Set<number>();
      /** What somebody chose to go back to. */
      const broughtBack = new Set<number | undefined>();
      const forgo = (one: Page, id: string) => {
        const token = one.typed.get(id);
        if (token) forgone.add(token);
        one.typed.delete(id);
      };
      let stale = [...server.rows.values()];

      const play = async (what: Event) => {
        const one = pages['page' in what ? what.page % count : 0];
        const id = 'row' in what ? (rowIds[what.row] ?? rowIds[0]) : rowIds[0];
        if (!one) return;
        const request = 'which' in what ? one.requests[what.which % Math.max(1, one.requests.length)] : undefined;
        switch (what.do) {
          case 'type': {
            if (one.span(id) === undefined) return;
            // What a page has taken over from another that was closed, it may also type over.
            for (const each of pages) if (each.typed.get(id) === one.span(id)) forgo(each, id);
            forgo(one, id);
            last += 1;
            if (server.rows.has(id)) one.typed.set(id, last);
            else forgone.add(last);
            const window = { centreX: 1, centreY: 1, span: last, turn: 0, mirror: false };
            one.bench.set('frames', id, { window, stretch: what.refused && last % 4 === 0 ? refusedStretch : 1 });
            break;
          }
          case 'arrive':
            if (request) request.outcome ??= request.arrive();
            break;
          case 'answer':
          case 'lose': {
            if (!request || (what.do === 'answer' && !request.outcome)) return;
            const before = one.requests.length;
            one.requests.splice(one.requests.indexOf(request), 1);
            request.answer(what.do === 'answer' && request.outcome ? request.outcome : { is: 'unheard' });
            await turn();
            // A server that does not answer is left alone for a while.
            if (what.do === 'lose') expect(one.requests).toHaveLength(before - 1);
            break;
          }
          case 'tick':
            one.tick();
            break;
          case 'read':
            one.read([...server.rows.values()]);
            break;
          case 'read late':
            one.read(stale);
            stale = [...server.rows.values()];
            break;
          case 'reload':
            one.bench.flush();
            if (!one.bench.getState().outlivesReload) for (const each of rowIds) forgo(one, each);
            one.load();
            break;
          case 'decide':
            if (one.phase(id) !== 'conflicted') return;
            if (what.mine) {
              // What another page had taken over and saved may be chosen once more.
              broughtBack.add(one.span(id));
              one.bench.keepMine('frames', id);
            } else {
              forgo(one, id);
              one.bench.takeTheirs('frames', id);
            }
            break;
          case 'full':
            drawer.isFull = true;
            break;
          case 'roomy':
            drawer.isFull = false;
            break;
          case 'new version':
            drawer.forgetSetting();
            break;
          case 'remove':
            server.rows.delete(id);
            for (const each of pages) forgo(each, id);
        }
        await turn();
        for (const each of pages) {
          const { frames } = each.bench.getState().saved;
          for (const id of rowIds) if (!frames[id]) each.versions.delete(id);
          for (const [id, { version }] of Object.entries(frames)) {
            expect(version).toBeGreaterThanOrEqual(each.versions.get(id) ?? 0);
            each.versions.set(id, version);
            // Nobody else is there to disagree with.
            if (count === 1) expect(each.phase(id)).not.toBe('conflicted');
          }
          for (const [typed, token] of each.typed) expect(each.span(typed) ?? token).toBe(token);
          // What the server has, or somebody has decided, is nobody's any more to lose.
          for (const typed of rowIds) if (each.phase(typed) === 'clean') each.typed.delete(typed);
        }
      };

      for (const what of events) await play(what);

      // The connection holds from now on, and everything is decided.
      drawer.isFull = false;
      for (let round = 0; round < 12; round += 1) {
        for (const [index, one] of pages.entries()) {
          await play({ do: 'tick', page: index });
          while (one.requests.length > 0) {
            await play({ do: 'arrive', page: index, which: 0 });
            await play({ do: 'answer', page: index, which: 0 });
          }
          for (const [row, id] of rowIds.entries()) {
            await play({ do: 'decide', page: index, row, mine: index === 0 });
            if (one.phase(id) === 'refused') {
              forgo(one, id);
              one.bench.takeTheirs('frames', id);
              broughtBack.add(one.span(id));
            }
          }
          await play({ do: 'read', page: index });
        }
      }
      const there = Object.fromEntries([...server.rows].map(([id, frame]) => [id, looseSettingsOf.frames(frame)]));
      for (const one of pages) {
        expect(one.bench.getState().settings.frames).toEqual(there);
        expect(Object.values(one.bench.getState().phases.frames).map(({ is }) => is)).toEqual(
          rowIds.flatMap((id) => (id in there ? ['clean'] : [])),
        );
      }
      const once = server.taken.filter((token) => !broughtBack.has(token));
      expect(once).toEqual([...new Set(once)]);
      const missing = Array.from({ length: last - 1 }, (_, index) => index + 2).filter(
        (token) => !server.taken.includes(token) && !forgone.has(token),
      );
      expect(missing).toEqual([]);
    }),
    { numRuns: 300 },
  );
});

test('thousands of frames that are set at once are sent together, and kept together', async () => {
  const drawer = new TestDrawer();
  let writes = 0;
  const counting: Drawer = {
    key: drawer.key,
    getItem: drawer.getItem,
    removeItem: drawer.removeItem,
    get length() {
      return drawer.length;
    },
    setItem(key, text) {
      writes += 1;
      drawer.setItem(key, text);
    },
  };
  const bench = new Bench(new Shelf('p', () => counting, 'one'));
  const [model] = new TestServer().rows.values();
  if (!model) throw new Error('There is no row.');
  const rows = Array.from({ length: 1500 }, (_, index) => ({ ...model, id: `${index}` }));
  bench.adopt({ frames: rows });
  const together: number[] = [];
  const refused = rows[7]?.id;
  new Saver(bench, {
    async send(_, some) {
      together.push(some.length);
      await Promise.resolve();
      return some.map(({ id, version, settings }): Outcome => {
        if (id === refused) return { is: 'refused', reason: 'It is too wide.' };
        return { is: 'saved', row: { id, version: version + 1, ...settings } as Frame };
      });
    },
    heard: () => undefined,
    later: () => undefined,
  });
  bench.setFrames(new Map(rows.map(({ id }) => [id, { stretch: 2 }])));
  while (connectionOf(bench.getState()) === 'saving') await turn();
  // Many frames go together, and one that is refused holds up none.
  expect(together).toEqual([1000, 500]);
  const { phases } = bench.getState();
  expect(Object.keys(phases.frames).filter((id) => phases.frames[id]?.is !== 'clean')).toEqual([refused]);
  expect(writes).toBeLessThan(200);
});

test('of a frame only what is set otherwise is sent, and a window never without what says how it came to be', () => {
  const server = new TestServer();
  const [saved] = server.rows.values();
  if (!saved) throw new Error('no row');
  const settings = looseSettingsOf.frames(saved) as FrameSettings;
  const { window, composed, dimensions, carriedFrom } = settings;
  expect(frameChange(saved, settings)).toEqual({});
  expect(frameChange(saved, { ...settings, format: 'png' })).toEqual({ format: 'png' });
  const moved = { ...window, span: 7 };
  const whole = { window: moved, composed, dimensions, carriedFrom };
  expect(frameChange(saved, { ...settings, window: moved, blend: 0.5 })).toEqual({ ...whole, blend: 0.5 });
  expect(frameChange(saved, { ...settings, composed: !composed })).toEqual({ ...whole, window, composed: !composed });
});
