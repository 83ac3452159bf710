export * from './fileReasons.ts';
export * from './frameFindings.ts';
export type { FrameToCheck } from './frameToCheck.ts';
export * from './legibilityFindings.ts';
export * from './letteringFindings.ts';
export * from './seamCautions.ts';
export * from './stretchWords.ts';
export * from './waysOut.ts';
