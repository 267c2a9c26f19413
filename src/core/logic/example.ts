/** A board to begin with: keys, lamps, a jumper, modes, a buzzer round one programmed chip. */
export const EXAMPLE_SENTENCES = `supply 5 V
U1 programmed chip, 20 pins: plus 20, ground 10, reset 1, crystal Y1 at 4 and 5
R1 10k: U1 1 to plus
K1-K4: U1 2, 3, 6, 7 to ground, pulled up inside
J1: U1 8 to plus (A) or ground (B), at A
D1-D6 red: U1 12-17 through R11-R16 330 to ground
D7 green: plus through R2 1k to ground
BZ1 buzzer: U1 18 to ground
K1-K3 pressed: D1-D3 light
K1 and K2 pressed: D4 lights
K4 steps 3 modes
mode 1: D5 lights
mode 2: D6 lights
K3 pressed and J1 at B: BZ1 sounds`;
