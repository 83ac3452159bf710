/** Runs the task over all items, two at a time: one for each core that is planned for. Fails after all have run if one failed. */
export async function mapTwoAtATime<Item>(
  items: readonly Item[],
  task: (item: Item, index: number) => Promise<void>,
): Promise<void> {
  const waiting = items.entries();
  const lane = async () => {
    for (const [index, item] of waiting) await task(item, index);
  };
  const results = await Promise.allSettled([lane(), lane()]);
  const failed = results.find((result) => result.status === 'rejected');
  if (failed) throw failed.reason;
}
