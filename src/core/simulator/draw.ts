/** Numbers drawn from a seed, the same each time (mulberry32). */
export class Draw {
  constructor(private state: number) {}

  /**
   * A whole number from 0 to below `most`.
   *
   * @example new Draw(1).below(6)
   */
  below(most: number): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return Math.floor((((t ^ (t >>> 14)) >>> 0) / 4_294_967_296) * most);
  }
}
