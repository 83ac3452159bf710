import type { ManifestFile } from '@inkwell/core/model';
import { postingKit } from '@inkwell/core/posting';
import type { DeliveryItem, DryRunItem } from '../../store/schema/index.ts';

/** What is uploaded of finished files, post by post in posting order; nothing of what is from before its place was noted. @param items that the files were made from */
export function dryRunItems(files: readonly ManifestFile[], items: readonly DeliveryItem[]): DryRunItem[] {
  const byName = new Map(items.map((item) => [item.fileName, item]));
  return postingKit(files).flatMap(({ entries }) =>
    entries.flatMap(({ posts }) =>
      posts.flatMap(({ key, files: inPost }) =>
        inPost.flatMap(({ line }): DryRunItem[] => {
          const item = byName.get(line.file);
          if (!line.placeThen || !item) return [];
          const { sheet, spec } = line.placeThen;
          return [{ line, network: sheet.slug, place: spec.slug, post: key, plan: item.plan, marks: item.marks ?? [] }];
        }),
      ),
    ),
  );
}
