import { z } from 'zod';

/**
 * What a frame's plan is called. The server says it: arithmetic in a browser may differ from the server's in the last
 * digit, and the hash with it.
 */
export const PlannedSchema = z.object({
  /** What the plan was made from: see `basisOf`. */
  basis: z.string(),
  planHash: z.string(),
  /** Of the same frame left plain. */
  plainHash: z.string(),
});
export type Planned = z.infer<typeof PlannedSchema>;

interface Versioned {
  version: number;
}

/** The versions of all that a frame's plan follows from: where they are equal, the plans are. */
export const basisOf = (from: {
  frame: Versioned;
  original: Versioned;
  project: Versioned;
  finish: Versioned & { id: string };
  place: { own?: Versioned | undefined; measured?: Versioned | undefined };
  /** What was seen in the original; null where nothing was yet. */
  seen: Versioned | null;
}): string =>
  [
    from.frame.version,
    from.original.version,
    from.project.version,
    from.finish.id,
    from.finish.version,
    from.place.own?.version ?? from.place.measured?.version ?? 0,
    from.seen?.version ?? 0,
  ].join(' ');
