export * from './rowsBefore.ts';
