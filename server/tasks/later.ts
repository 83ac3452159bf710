/** Work that goes on later: nothing that was done is done again. */
export interface Later {
  laterMs: number;
}
