/** A line in the voice bar about what was just done, with the way back where there is one. */
export interface Notice {
  text: string;
  undo?: () => Promise<void>;
  /** What the button of the way back says, where it is not “Undo”. */
  way?: string;
}
