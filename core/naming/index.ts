export * from './fileNames.ts';
export * from './folderNames.ts';
export * from './reserved.ts';
