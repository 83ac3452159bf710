export * from './files/fileReasons.ts';
export * from './frameFindings.ts';
export type { FrameToCheck } from './frameToCheck.ts';
export * from './lettering/legibilityFindings.ts';
export * from './lettering/letteringFindings.ts';
export * from './stretchWords.ts';
export * from './strips/seamCautions.ts';
export * from './waysOut.ts';
