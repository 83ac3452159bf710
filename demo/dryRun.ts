import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { isSettled } from '@inkwell/core/model';
import { defaultPattern } from '@inkwell/core/naming';
import { Fonts } from '@inkwell/server/fonts/fonts.ts';
import { readSettings } from '@inkwell/server/settings/settings.ts';
import { firstWorkspace } from '@inkwell/server/store/access/workspaces.ts';
import { openDatabase } from '@inkwell/server/store/database.ts';
import { reachMilestone } from '@inkwell/server/store/milestones.ts';
import { framesOfProject } from '@inkwell/server/store/projects/frames.ts';
import { listProjects } from '@inkwell/server/store/projects/projects.ts';
import { requestDelivery } from '@inkwell/server/tasks/delivering/requestDelivery.ts';
import { dryRunOfDelivery } from '@inkwell/server/tasks/dryRunning/requestDryRun.ts';
import { measuredOf } from '@inkwell/server/tasks/plans/measuredFrames.ts';
import { Planner } from '@inkwell/server/tasks/plans/planner.ts';
import { projectName } from './project.ts';

const settings = readSettings(process.env);
const { whole, fenced, close } = await openDatabase(settings.DATABASE_URL);
const db = fenced(await firstWorkspace(whole));
const services = { db, planner: new Planner(db, new Fonts(join(settings.INKWELL_DATA, 'fonts'))) };
const lookMs = 2000;

/** What the demo's project is set as once all of it is measured; null where it is no longer there: deleted or renamed, it is somebody's own. */
async function whenMeasured(): Promise<{ projectId: string; seen: { frameId: string; plan: string }[] } | null> {
  for (;;) {
    const project = (await listProjects(db)).find(({ name }) => name === projectName);
    if (!project) return null;
    const measured = await measuredOf(db, await services.planner.open(), await framesOfProject(db, project.id));
    if (measured.every(isSettled)) {
      return { projectId: project.id, seen: measured.map(({ frameId, planHash }) => ({ frameId, plan: planHash })) };
    }
    await setTimeout(lookMs);
  }
}

/** Delivers the demo's project, and asks for a dry run of that: once in the life of a database. */
try {
  const measured = await whenMeasured();
  await reachMilestone(db, 'demo dry run', async () => {
    if (!measured) return;
    const { id } = await requestDelivery(services, { ...measured, pattern: defaultPattern });
    await dryRunOfDelivery(services, id);
  });
  await close();
} catch (error) {
  const why = error instanceof Error ? error.message : String(error);
  console.error(`The demo has no dry run yet. ${why}\nThe next start of ./inkwell demo tries again.`);
  process.exitCode = 1;
}
