import type { Project } from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import { listProjects } from '../../store/projects/projects.ts';

/** All projects, most recently changed first, with what the pictures of their covers are called. */
export async function listedProjects({ db, planner }: Pick<Services, 'db' | 'planner'>): Promise<Project[]> {
  const [projects, { measuringOf }] = await Promise.all([listProjects(db), planner.open()]);
  return projects.map((project) => ({
    ...project,
    cover: project.cover.map((framed) => ({
      frame: framed.frame,
      original: framed.original,
      planHash: measuringOf(framed)?.planned.planHash ?? null,
    })),
  }));
}
