export * from './nextName.ts';
export * from './nextProject.ts';
export * from './onAllPictures.ts';
export * from './projectFile.ts';
