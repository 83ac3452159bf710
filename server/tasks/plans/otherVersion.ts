/** What is said of a plan of another version of the program. */
export const otherVersion =
  'It was planned by another version of the program. Change something about it, or deliver again.';
