import { type Kernel, type Tenant, theKernel } from '../kernel/kernel';
import { type EliminationOrder, PivotSearch } from './pivotSearch';

/** Orders kept per pattern: faults push a board into a handful of regimes that want different pivots. */
const MOST_ORDERS = 12;

/** Orders by pattern, shared between systems: most faults keep the pattern of the healthy circuit. */
export type OrderCache = Map<string, EliminationOrder[]>;

/**
 * Sparse LU with a fixed elimination order: pivots are searched once, the kernel then repeats the same eliminations on new
 * values as a flat list of positions. Newton iterations of one circuit, and faults that keep its pattern, share one order.
 */
export class SparseLu {
  private order: EliminationOrder | null = null;
  /** Row and column at which the last search found no usable pivot. */
  singularAt: { row: number; column: number } | null = null;
  /** Orders found so far for this pattern, by this system or another of the same layout. */
  private shared: EliminationOrder[] = [];

  constructor(
    private readonly tenant: Tenant,
    private readonly rows: Int32Array,
    private readonly columns: Int32Array,
    orders: OrderCache | null = null,
  ) {
    if (!orders) return;
    const key = `${tenant.counts.size}:${rows.join()}:${columns.join()}`;
    this.shared = orders.get(key) ?? [];
    orders.set(key, this.shared);
    this.order = this.shared[0] ?? null;
  }

  /** Brings in the order that did last. False when there is none yet. */
  ready(): boolean {
    if (this.order) theKernel().use(this.order);
    return this.order !== null;
  }

  /** Factors the matrix that the kernel holds. False when it is singular; `singularAt` then says where. */
  factor(): boolean {
    const kernel = theKernel();
    const suits = (order: EliminationOrder) => {
      this.order = order;
      kernel.use(order);
      return kernel.run.factor() === 1;
    };
    const { order } = this;
    if (order && suits(order)) return true;
    if (this.shared.some((other) => other !== order && suits(other))) return true;
    const search = new PivotSearch(this.tenant.counts.size, this.rows, this.columns, kernel.matrix);
    const found = search.run();
    this.singularAt = found ? null : search.stuckAt;
    if (!found) return false;
    this.shared.unshift(found);
    if (this.shared.length > MOST_ORDERS) this.shared.pop();
    return suits(found);
  }

  /** Solves A x = b in place with the factors at hand: `b` becomes x. */
  solve(b: Float64Array): void {
    this.inKernel(b, 'solve');
  }

  /** Solves Aᵀ z = c in place with the factors at hand, for adjoint sensitivities. */
  solveTransposed(c: Float64Array): void {
    this.inKernel(c, 'solveTransposed');
  }

  /** Resistance that a meter at two unknowns sees in the linearised circuit (Thevenin), ohms, with the factors at hand. */
  resistance(red: number, black: number): number {
    return this.kernel().run.resistance(red, black);
  }

  private inKernel(b: Float64Array, what: 'solve' | 'solveTransposed'): void {
    const kernel = this.kernel();
    kernel.f.set(b);
    kernel.run[what](kernel.run.f.value);
    b.set(kernel.f);
  }

  /** The kernel, still with this circuit's factors in it. */
  private kernel(): Kernel {
    const kernel = theKernel();
    if (!kernel.isIn(this.tenant)) throw new Error('the factors at hand are of another circuit');
    return kernel;
  }
}
