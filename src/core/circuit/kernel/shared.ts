/**
 * What host and kernel must agree on; compiled into both. Numbers (f64) and places (i32) of each device follow one another in
 * this order.
 */

/** Conductance from every net to ground, siemens, so that a net on which nothing hangs has a voltage. */
export const SHUNT = 1e-12;

/** How iterations end. */
export const UNSETTLED = 0;
export const SETTLED = 1;
export const WANTS_ORDER = 2;

/** Diode: saturation current, N VT, critical voltage, knee of the breakdown (Infinity without), least conductance. */
export const DIODE_NUMBERS = 5;
export const DIODE_IS = 0;
export const DIODE_NVT = 1;
export const DIODE_CRITICAL = 2;
export const DIODE_KNEE = 3;
export const DIODE_LEAST = 4;
/** Anode, cathode, and the four entries of a conductance between them. */
export const DIODE_PLACES = 6;

/** Bipolar transistor, scaled to its area; an inverse of 0 stands for infinity; the sign is −1 for PNP. */
export const BIPOLAR_NUMBERS = 15;
export const BIPOLAR_IS = 0;
export const BIPOLAR_NFVT = 1;
export const BIPOLAR_NRVT = 2;
export const BIPOLAR_BF = 3;
export const BIPOLAR_BR = 4;
export const BIPOLAR_INV_VAF = 5;
export const BIPOLAR_INV_VAR = 6;
export const BIPOLAR_INV_IKF = 7;
export const BIPOLAR_INV_IKR = 8;
export const BIPOLAR_ISE = 9;
export const BIPOLAR_NEVT = 10;
export const BIPOLAR_ISC = 11;
export const BIPOLAR_NCVT = 12;
export const BIPOLAR_CRITICAL = 13;
export const BIPOLAR_SIGN = 14;
/** Collector, base, emitter, and the block of entries among them, row by row. */
export const BIPOLAR_PLACES = 12;

/** MOSFET: sign (−1 for p-channel), threshold times sign, KP W/L, LAMBDA, GAMMA, PHI, bulk saturation current, its critical voltage. */
export const MOSFET_NUMBERS = 8;
export const MOSFET_SIGN = 0;
export const MOSFET_VTO = 1;
export const MOSFET_BETA = 2;
export const MOSFET_LAMBDA = 3;
export const MOSFET_GAMMA = 4;
export const MOSFET_PHI = 5;
export const MOSFET_IS = 6;
export const MOSFET_CRITICAL = 7;
/** Drain, gate, source, bulk, and the block among them. */
export const MOSFET_PLACES = 20;

/** JFET: sign (−1 for p-channel), VTO (negative for depletion types of both), BETA, LAMBDA, gate saturation current, its critical voltage. */
export const JFET_NUMBERS = 6;
export const JFET_SIGN = 0;
export const JFET_VTO = 1;
export const JFET_BETA = 2;
export const JFET_LAMBDA = 3;
export const JFET_IS = 4;
export const JFET_CRITICAL = 5;
/** Drain, gate, source, and the block among them. */
export const JFET_PLACES = 12;
