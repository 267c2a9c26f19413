/** Where a function of one valley is least: golden section search (textbook). */
export function leastAt(f: (x: number) => number, from: number, to: number): number {
  const golden = (Math.sqrt(5) - 1) / 2;
  let [a, b] = [from, to];
  for (let i = 0; i < 80; i++) {
    const [c, d] = [b - golden * (b - a), a + golden * (b - a)];
    if (f(c) < f(d)) b = d;
    else a = c;
  }
  return (a + b) / 2;
}

/** Where a function falls from positive to negative: bisection (textbook). */
export function fallsThroughZeroAt(f: (x: number) => number, from: number, to: number): number {
  let [a, b] = [from, to];
  for (let i = 0; i < 80; i++) {
    const middle = (a + b) / 2;
    if (f(middle) > 0) a = middle;
    else b = middle;
  }
  return (a + b) / 2;
}
