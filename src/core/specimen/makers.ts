/**
 * How far good parts differ from what the deck says, whoever made them (common practice, no source). A lot is one draw for
 * all parts of one model on a board, a piece one draw a part; factors are drawn evenly on a logarithmic scale.
 */
export const MAKERS = {
  /** Saturation current of junctions: factor either way by lot, and by piece within it. */
  saturation: { lot: 8, piece: 1.25 },
  bipolar: { emission: [0.98, 1.05], early: [0.5, 2], resistance: [0.3, 3] },
  diode: { emission: [0.9, 1.1], resistance: [0.3, 3] },
  /** Forward volts of LEDs either way. */
  led: { lot: 0.22, piece: 0.03 },
  /** Share of a zener's voltage either way. */
  zener: { lot: 0.05, piece: 0.02, resistance: [0.5, 3], saturation: [0.5, 2] },
  /** Threshold volts either way about the middle of the range; transconductance as a factor. */
  mosfet: { lot: 0.4, piece: 0.1, transconductance: [0.4, 2.5] },
  jfet: { transconductance: [1 / 1.3, 1.3] },
  /** Input offset volts either way, and how far the output's limits lie off. */
  opamp: { offset: 0.005, upper: [-0.4, 0.4], lower: [0, 0.4] },
  /** Share of a supply's voltage either way: bench supply, winding or battery. */
  supply: 0.02,
} as const;
