import { type Analysis, AnalysisSchema, analyserVersion, type PictureSource } from '@inkwell/core/model';
import { and, eq, inArray, isNull, lt, or, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { analyses, originals } from '../schema/index.ts';

/** A page or frame of a file. */
type Page = Pick<PictureSource, 'sha256' | 'page'>;

const keyOf = ({ sha256, page }: Page) => `${sha256} ${page}`;

/** What was seen in pages of files, as far as they were looked at; what this program cannot read counts as not looked at. */
export async function analysesOf(db: Queryable, pages: readonly Page[]): Promise<(page: Page) => Analysis | null> {
  const hashes = [...new Set(pages.map(({ sha256 }) => sha256))];
  const rows = hashes.length === 0 ? [] : await db.select().from(analyses).where(inArray(analyses.sha256, hashes));
  const known = new Map(
    rows.flatMap((row) => {
      const { data } = AnalysisSchema.safeParse(row.analysis);
      return data ? [[keyOf(row), data] as const] : [];
    }),
  );
  return (page) => known.get(keyOf(page)) ?? null;
}

/** Keeps what was seen, in place of what an older program has seen. */
export async function keepAnalysis(db: Queryable, { sha256, page }: Page, analysis: Analysis): Promise<void> {
  const { version } = analysis;
  await db
    .insert(analyses)
    .values({ sha256, page, version, analysis })
    .onConflictDoUpdate({
      target: [analyses.sha256, analyses.page],
      set: { version, analysis, seenAt: sql`now()` },
      // Of two programs that look at it at once, the newer one is right.
      setWhere: lt(analyses.version, version),
    });
}

/** The pages of originals that this version of the program has not looked at. */
export async function notLookedAt(db: Queryable): Promise<PictureSource[]> {
  const { sha256, page, width, height, hasAlpha } = originals;
  return db
    .selectDistinct({ sha256, page, width, height, hasAlpha })
    .from(originals)
    .leftJoin(analyses, and(eq(analyses.sha256, sha256), eq(analyses.page, page)))
    .where(and(isNull(originals.deletedAt), or(isNull(analyses.version), lt(analyses.version, analyserVersion))));
}
