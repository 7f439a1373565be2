/** A clock that can go faster than the real one, and be moved ahead. Instants are in milliseconds. */
export class FollowersClock {
  private real: number;
  private shown: number;

  constructor(
    private readonly now: () => number,
    private pace: number,
  ) {
    this.real = this.shown = now();
  }

  /** What it shows. */
  read(): number {
    return this.shown + (this.now() - this.real) * this.pace;
  }

  get speed(): number {
    return this.pace;
  }

  /** Goes on at another pace from now on; 0 stands still. */
  setSpeed(speed: number): void {
    this.shown = this.read();
    this.real = this.now();
    this.pace = speed;
  }

  jump(by: number): void {
    this.shown += by;
  }
}
