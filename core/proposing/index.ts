export * from './asComposed.ts';
export * from './detections.ts';
export * from './looks.ts';
export * from './marksFromProposals.ts';
export * from './proposals.ts';
export * from './seenWords.ts';
export * from './sureness.ts';
