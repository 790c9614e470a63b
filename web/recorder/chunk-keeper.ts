type Save = (chunk: Blob) => Promise<void>;

/** Hands pieces of a take to the browser's storage, in order; those that come before it is ready wait. */
export class ChunkKeeper {
  readonly #early: Blob[] = [];
  #save: Save | undefined;

  keep(chunk: Blob): void {
    if (this.#save) void this.#write(this.#save, chunk);
    else this.#early.push(chunk);
  }

  keepIn(save: Save): void {
    this.#save = save;
    for (const chunk of this.#early.splice(0)) void this.#write(save, chunk);
  }

  /** A full disk must not end the take: it is still in memory. */
  async #write(save: Save, chunk: Blob): Promise<void> {
    await save(chunk).catch(() => undefined);
  }
}
