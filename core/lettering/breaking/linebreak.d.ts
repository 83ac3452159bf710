/** The package has no types of its own. */
declare module 'linebreak' {
  export default class LineBreaker {
    constructor(text: string);
    /** The next place where a line may end; null after the last. */
    nextBreak(): { position: number; required: boolean } | null;
  }
}
