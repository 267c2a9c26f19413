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
