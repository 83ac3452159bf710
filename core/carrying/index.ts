export * from './nextName.ts';
export * from './nextProject.ts';
