/** What the host sees of the kernel (see `kernel.ts`). */
export { factor, resistance, solve, solveTransposed } from './lu';
export { f, matrix, numbers, openOrder, openSystem, order, places, x, anchor } from './memory';
export { coldStart, imbalance, iterate, iterations, loadAll, slowest, warmStart } from './newton';
