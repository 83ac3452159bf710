export * from './samples.ts';
