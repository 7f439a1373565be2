interface Held {
  readonly tag: string;
  readonly answer: unknown;
}

const MAX_HELD_ANSWERS = 200;

/** The last answers of a session by address: if the server answers that one has not changed, it need not send it again. */
export class HeldAnswers {
  private session = '';
  private readonly answers = new Map<string, Held>();

  /** Returns what is held of an address; answers of another session are forgotten. */
  get(session: string, address: string): Held | undefined {
    if (session !== this.session) {
      this.answers.clear();
      this.session = session;
    }
    return this.answers.get(address);
  }

  /** Holds an answer that came with a tag (ETag). The one that was not asked for longest goes first. */
  set(session: string, address: string, tag: string | null, answer: unknown): void {
    if (session !== this.session) return;
    this.answers.delete(address);
    if (!tag) return;
    this.answers.set(address, { tag, answer });
    if (this.answers.size > MAX_HELD_ANSWERS) this.answers.delete(this.answers.keys().next().value!);
  }
}
