/** Collects the matrix positions that a circuit's parts use; equal positions share one slot. */
export class Pattern {
  private readonly slotOf = new Map<number, number>();
  private readonly rowList: number[] = [];
  private readonly columnList: number[] = [];

  /** `ground` is the index that stands for the ground row and column: its entries land in slot 0 and count for nothing. */
  constructor(private readonly ground: number) {
    this.rowList.push(ground);
    this.columnList.push(ground);
  }

  slot(row: number, column: number): number {
    if (row === this.ground || column === this.ground) return 0;
    const key = row * (this.ground + 1) + column;
    const known = this.slotOf.get(key);
    if (known !== undefined) return known;
    const slot = this.rowList.length;
    this.slotOf.set(key, slot);
    this.rowList.push(row);
    this.columnList.push(column);
    return slot;
  }

  get rows(): Int32Array {
    return Int32Array.from(this.rowList);
  }
  get columns(): Int32Array {
    return Int32Array.from(this.columnList);
  }
}
