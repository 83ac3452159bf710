import { nextProject } from '@inkwell/core/carrying';
import type { OpenProject } from '@inkwell/core/model';

/** The places that a new picture of a project would get: those it says, or those that most of its pictures have. */
export const usualPlacesOf = (project: OpenProject): string[] => nextProject(project).usualPlaces;
