import type { FrameChange } from './frame.ts';

/** One thing that is wrong (blocker: no delivery) or doubtful (caution), in words, with the numbers behind it. */
export interface Finding {
  kind:
    | 'not taken'
    | 'enlarged'
    | 'too heavy'
    | 'low quality'
    | 'ruined spot'
    | 'format'
    | 'transparency'
    | 'stretched'
    | 'leaning'
    | 'detail lost'
    | 'too tall for a strip'
    | 'too few pixels for a strip'
    | 'seam through mark'
    | 'covered middle'
    | 'hidden middle'
    | 'mark cut'
    | 'mark covered'
    | 'mark not always shown'
    | 'avoided mark shown'
    | 'over-sharpened'
    | 'noise lifted'
    | 'clipped'
    | 'finish left out'
    | 'letters missing'
    | 'words left out'
    | 'words misplaced'
    | 'hard to read'
    | 'much under words'
    | 'not as wished'
    | 'carried over';
  level: 'blocker' | 'caution';
  text: string;
  measured: number | string;
  allowed: number | string;
  fix?: { label: string; change: FrameChange };
}
