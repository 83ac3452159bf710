export * from './fileNames.ts';
