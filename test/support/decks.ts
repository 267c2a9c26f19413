/** A flasher of two transistors: it never rests. */
export const FLASHER = `Two lamps in turn
V1 vcc 0 9
R1 vcc c1 1k
R2 vcc c2 1k
R3 vcc b1 47k
R4 vcc b2 47k
C1 c1 b2 1u
C2 c2 b1 1u
Q1 c1 b1 0 NS
Q2 c2 b2 0 NS
.ic V(c1)=0 V(b2)=-3
.model NS NPN(IS=1.5E-14 BF=250 VAF=80 BR=4 RC=0.5 RE=0.1)
.end`;

/** Networks, a track, chips in two rows, a link (W1) and a switch (S1); everything with names of its own. */
export const ROWS_OF_PINS = `Rows of pins
V1 vc 0 9
R1 vc p 1k
RN1a p q1 2.2k
RN1b p q2 4.7k
RN1c p q3 10k
R2 q1 0 1k
R3 q2 0 2k
R4 q3 0 3k
RW1 vc vl 0.01
RV1a vl w 3k
RV1b w 0 7k
R5 w a 10k
RS1 vl s 0.05
R13 s 0 4.7k
XU1 a b 0 0 c d e vc CHIP
XU2 b d 0 0 f g h vc OTHER
R6 b 0 5k
R7 c 0 4k
R8 d 0 6k
R9 e 0 8k
R10 f 0 5k
R11 g 0 4k
R12 h 0 9k
.subckt CHIP 1 2 3 4 5 6 7 8
R1 8 2 2k
R2 1 4 10k
R3 8 5 3k
D1 6 8 DX
R4 8 6 20k
R5 7 3 1k
R6 8 7 9k
.ends
.subckt OTHER 1 2 3 4 5 6 7 8
R1 1 4 20k
R2 2 3 30k
D1 8 5 DX
R3 8 6 1k
R4 8 7 6k
R5 3 4 1k
.ends
.model DX D(IS=4E-9 N=1.9)
.end`;

/** A programmed chip on two resistors' worth of a job: one output high, one at half its supply, an input held up. */
export const PROGRAMMED = `A programmed chip
V1 vc 0 5
XU1 vc 0 in high half CONTROLLER
R1 vc in 10k
R2 high a 1k
R3 a 0 2.2k
R4 half b 4.7k
R5 b 0 10k
.subckt CONTROLLER vdd gnd in out1 out2
Rq vdd gnd 1k
Rin in gnd 1MEG
E1 x1 gnd vdd gnd 1
Ro1 x1 out1 40
E2 x2 gnd vdd gnd 0.5
Ro2 x2 out2 40
.ends CONTROLLER
.end`;

/** A timer chip as a template puts it into a deck: a square wave behind a resistor, a divider at its control pin; and the list of its parts. */
export const BLINKER = `Lamp that blinks
V1 vcc 0 DC 9
VU1q U1o 0 PULSE(0 7.5 0 722u 722u 394m 722m)
RU1o U1o out 50
R5w vcc cv 5000
R6w cv 0 10000
R1 vcc dis 10k
R2 dis thr 47k
C1 thr 0 10u
C2 cv 0 10n
R3 out l 680
D1 l 0 L
.model L D(IS=2E-18 N=2 RS=3)
.end`;
export const BLINKER_LIST =
  '1 x IC NE555 (U1)\n1 x Resistor 10k (R1)\n1 x Resistor 47k (R2)\n1 x Electrolytic capacitor 10uF (C1)\n1 x Ceramic capacitor 10nF (C2)\n1 x Resistor 680 (R3)\n1 x LED red (D1)';
