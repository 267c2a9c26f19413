/** Standard normal distribution function Φ; error below 1.2e-7 (Abramowitz & Stegun 7.1.26 refined: W. J. Cody style rational erfc, from memory). */
export function normalCdf(z: number): number {
  return 0.5 * erfc(-z / Math.SQRT2);
}

/** Complementary error function (Chebyshev fit, Numerical Recipes `erfcc`, relative error below 1.2e-7). */
function erfc(x: number): number {
  const t = 1 / (1 + 0.5 * Math.abs(x));
  const poly =
    -1.26551223 +
    t *
      (1.00002368 +
        t * (0.37409196 + t * (0.09678418 + t * (-0.18628806 + t * (0.27886807 + t * (-1.13520398 + t * (1.48851587 + t * (-0.82215223 + t * 0.17087277))))))));
  const tail = t * Math.exp(-x * x + poly);
  return x >= 0 ? tail : 2 - tail;
}
