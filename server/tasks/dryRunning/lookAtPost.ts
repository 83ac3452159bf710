import { createHash } from 'node:crypto';
import { gapBetween } from '@inkwell/core/dryRunning';
import { piecesOf } from '@inkwell/core/geometry';
import type { ComeBack, NetworkPost, ShownSeam } from '@inkwell/core/model';
import { readPlan } from '@inkwell/core/planning';
import { type MeasuredBack, measureComeBack, type SentBack } from '../../imaging/measuring/comeBack.ts';
import { measureFile } from '../../imaging/measuring/opening.ts';
import { stepsBetween } from '../../imaging/measuring/seams.ts';
import { blobBytes } from '../../store/blobs/blobs.ts';
import type { Database } from '../../store/database.ts';
import type { NetworkClient } from './networkClient.ts';
import type { PostOutcome, Upload } from './uploadPost.ts';

/** A file of a post with everything that came back of it. */
interface Back {
  upload: Upload;
  data: Buffer;
  sent: SentBack;
  measured: MeasuredBack;
}

/** Fetches what a network shows of a post, and measures it. @throws NetworkAway, NetworkRefused */
export async function lookAtPost(
  db: Database,
  client: NetworkClient,
  post: NetworkPost,
  uploads: readonly Upload[],
): Promise<PostOutcome[]> {
  const backs: Back[] = [];
  for (const [at, upload] of uploads.entries()) {
    const file = post.files[at];
    const data = await blobBytes(db, upload.item.line.sha256);
    if (!file || !data) throw new Error(`${upload.item.line.file} is not in its post.`);
    const shown: SentBack['shown'] = [];
    for (const { shownWidth } of file.shown) {
      shown.push({ shownWidth, data: await client.shown(post, file.number, shownWidth) });
    }
    const sent = { kept: await client.kept(post, file.number), shown };
    backs.push({ upload, data, sent, measured: await measuredOf(upload, data, sent) });
  }
  const screens = await screensOf(client, post);
  const seams = await seamsOf(backs);
  const gap = await gapOf(post, screens);
  return backs.map(({ upload: { position }, sent, measured }) => {
    const shown = measured.shown.map((one, at) => {
      const screen = screens.get(one.shownWidth);
      return { ...one, sha256: sha256Of(sent.shown[at]?.data), screen: screen ? sha256Of(screen) : null };
    });
    const kept = { ...measured.kept, sha256: sha256Of(sent.kept) };
    const back: ComeBack = { ...measured, kept, shown, seams: seams.get(position) ?? [], gap };
    return {
      position,
      outcome: { state: 'shown', back },
      pictures: [sent.kept, ...sent.shown.map(({ data }) => data), ...screens.values()],
    };
  });
}

/** The whole post as the network's page shows it, by the width. */
async function screensOf(client: NetworkClient, post: NetworkPost): Promise<Map<number, Buffer>> {
  const screens = new Map<number, Buffer>();
  for (const { shownWidth } of post.files[0]?.shown ?? [])
    screens.set(shownWidth, await client.screen(post, shownWidth));
  return screens;
}

/** The gap between the tiles of a post, measured on its widest screen. */
async function gapOf({ files, columns }: NetworkPost, screens: ReadonlyMap<number, Buffer>): Promise<number | null> {
  const tile = files[0]?.shown[0];
  const screen = tile && screens.get(tile.shownWidth);
  if (!tile || !screen || files.length < 2) return null;
  return gapBetween((await measureFile(screen)).width, tile.width, columns);
}

const sha256Of = (data: Buffer = Buffer.alloc(0)) => createHash('sha256').update(data).digest('hex');

const measuredOf = ({ item: { line, plan, marks } }: Upload, data: Buffer, sent: SentBack): Promise<MeasuredBack> =>
  measureComeBack({ data, plan: readPlan(plan), piece: line.piece?.index ?? 0, marks }, sent);

/** The steps across the seams of a strip or block that is shown together, as delivered and as kept; none where pieces do not touch. */
async function seamsOf(backs: readonly Back[]): Promise<Map<number, ShownSeam[]>> {
  const [first] = backs;
  const plan = first && readPlan(first.upload.item.plan);
  const grid = plan?.grid;
  if (!grid || grid.bridge > 0 || backs.length !== piecesOf(grid).length) return new Map();
  const inReadingOrder = [...backs].sort((a, b) => indexOf(a) - indexOf(b));
  const [delivered, shown] = await Promise.all([
    stepsBetween(
      inReadingOrder.map(({ data }) => data),
      grid,
    ),
    stepsBetween(
      inReadingOrder.map(({ sent }) => sent.kept),
      grid,
    ),
  ]);
  return new Map(
    inReadingOrder.map(({ upload }, index) => [
      upload.position,
      (delivered.get(index) ?? []).flatMap(({ next, step }): ShownSeam[] => {
        const after = shown.get(index)?.find((one) => one.next === next);
        return after ? [{ next, delivered: step, shown: after.step }] : [];
      }),
    ]),
  );
}

const indexOf = ({ upload }: Back): number => upload.item.line.piece?.index ?? 0;
