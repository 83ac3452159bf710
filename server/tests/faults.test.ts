import fc from 'fast-check';
import { expect, test } from 'vitest';
import { Cluster, hasPostgres } from '../testing/cluster.ts';
import { Campaign, victims } from '../testing/faults/campaign.ts';

// Where PostgreSQL runs on another machine, nobody here can kill it. `npm run faults` kills two hundred times, and lets much else go wrong.
test.skipIf(!hasPostgres())(
  'five people lose nothing and see nobody else, whatever of the program is killed',
  async () => {
    const seed = Number(process.env.INKWELL_SEED ?? 20);
    const [random] = fc.sample(fc.infiniteStream(fc.integer({ min: 5, max: 30 })), { numRuns: 1, seed });
    const cluster = await Cluster.make();
    try {
      const campaign = await Campaign.start(cluster);
      try {
        campaign.begin();
        for (const victim of victims) {
          // So much is answered in between, however busy the machine is.
          await campaign.untilAnswered(campaign.answered + Number(random?.next().value));
          expect([victim, await campaign.strike(victim)]).toEqual([victim, true]);
        }
        await campaign.untilAnswered(campaign.answered + 30);
        await campaign.rest();
        expect(await campaign.verify()).toEqual([]);
        for (const person of campaign.people) expect(person.kept).toBeGreaterThan(1);
      } finally {
        await campaign.end();
      }
    } finally {
      await cluster.destroy();
    }
  },
  900_000,
);
