export * from './dimensions.ts';
export * from './grid.ts';
export * from './marksOnPicture.ts';
export * from './rect.ts';
export * from './snapping.ts';
export * from './turned.ts';
export * from './viewport.ts';
export * from './window.ts';
