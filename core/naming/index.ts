export * from './fileNames.ts';
export * from './folderNames.ts';
