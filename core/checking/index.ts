export * from './fileReasons.ts';
export * from './frameFindings.ts';
