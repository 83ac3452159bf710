import { madePicture, type PictureKey, pictures } from './make.ts';

// `node --import tsx demo/paint.ts PICTURE FOLDER` paints one picture of the demo, so that two can be painted at a time.
const [key = '', folder] = process.argv.slice(2);
try {
  if (!(key in pictures) || !folder) {
    throw new Error(`Say which picture (${Object.keys(pictures).join(', ')}) and where.`);
  }
  await madePicture(key as PictureKey, folder);
} catch (error) {
  console.error(`${key} could not be painted. ${error instanceof Error ? error.message : String(error)}`);
  process.exitCode = 1;
}
