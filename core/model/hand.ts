import { z } from 'zod';
import { ColourSchema } from './backing.ts';
import { wordsSchema } from './lettering.ts';
import { SetOffSchema } from './letterStyle.ts';

/** Where a hand has put an item. */
export const StandSchema = z.object({
  /** The middle of its ink, as shares of the frame's width and height, or of those of the piece that it is on. */
  x: z.number().min(-1).max(2),
  y: z.number().min(-1).max(2),
  /** Its em, or its longer side, as a share of the shorter side. */
  size: z.number().min(0.002).max(3),
  /** In how many lines words are set, as far as they can be. */
  lines: z.int().positive(),
});
export type Stand = z.infer<typeof StandSchema>;

/** What a hand has set for one item in one frame. */
export const HandSchema = z.object({
  /** Null while it is laid out. */
  stand: StandSchema.nullable(),
  /** What it says here; null for what it says everywhere. */
  text: wordsSchema('Words').nullable(),
  colour: ColourSchema.nullable(),
  /** What sets it off from the picture here; null for what its style says. */
  setOff: SetOffSchema.nullable(),
  /** Whether this frame is without it. */
  isOff: z.boolean(),
});
export type Hand = z.infer<typeof HandSchema>;

export const noHand: Hand = { stand: null, text: null, colour: null, setOff: null, isOff: false };

/** Hands on items that are gone stay, for these may come back: so many at most. */
const mostHands = 100;

/** What hands have set in one frame, by item. */
export const HandsSchema = z
  .record(z.uuid(), HandSchema)
  .refine(
    (hands) => Object.keys(hands).length <= mostHands,
    `At most ${mostHands} items of a frame can be set by hand.`,
  );
export type Hands = z.infer<typeof HandsSchema>;

/** The hands of a frame with some of one item's changed; what is as if no hand had been there is left out. */
export function withHand(hands: Hands, itemId: string, change: Partial<Hand>): Hands {
  const { [itemId]: before = noHand, ...others } = hands;
  const hand = { ...before, ...change };
  const { stand, text, colour, setOff, isOff } = hand;
  const isNone = stand === null && text === null && colour === null && setOff === null && !isOff;
  return isNone ? others : { ...others, [itemId]: hand };
}
