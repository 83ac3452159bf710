export * from './nextName.ts';
export * from './nextProject.ts';
export * from './onAllPictures.ts';
