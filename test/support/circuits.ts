/** Small circuits of our own for checks against a reference, one or two of every kind of device. */
const Q = '.model NS NPN(IS=1.5E-14 BF=250 NF=1 VAF=80 BR=4 RC=0.5 RE=0.1)\n.model PS PNP(IS=2E-14 BF=220 VAF=60 BR=4 RC=0.5 RE=0.1)\n';
const D = '.model DS D(IS=4E-9 N=1.9 RS=0.6 BV=100 IBV=1E-5)\n.model Z5 D(IS=1E-14 N=1.1 RS=6 BV=5.1 IBV=5E-3)\n.model LR D(IS=7.7E-18 N=2 RS=2)\n';

export const CIRCUITS: readonly (readonly [name: string, deck: string])[] = [
  ['divider', 'divider\nV1 a 0 12\nR1 a b 10k\nR2 b 0 4.7k\n.end'],
  ['wheatstone bridge', 'bridge\nV1 a 0 5\nR1 a b 1k\nR2 b 0 2k\nR3 a c 1.1k\nR4 c 0 2k\nR5 b c 10k\n.end'],
  ['current source and ladder', 'ladder\nI1 0 a 2m\nR1 a 0 1k\nR2 a b 2.2k\nR3 b 0 3.3k\n.end'],
  ['controlled sources', 'controlled\nV1 a 0 1\nR1 a 0 1k\nE1 b 0 a 0 4\nR2 b c 1k\nG1 0 d c 0 1m\nR3 c 0 1k\nR4 d 0 2k\n.end'],
  ['coil at DC', 'coil\nV1 a 0 5\nR1 a b 100\nL1 b c 1m\nR2 c 0 100\nC1 c 0 1u\n.end'],
  ['silicon diode', `diode\nV1 a 0 5\nR1 a b 1k\nD1 b 0 DS\n${D}.end`],
  ['LED and series resistor', `led\nV1 a 0 9\nR1 a b 470\nD1 b 0 LR\n${D}.end`],
  ['zener regulator', `zener\nV1 a 0 12\nR1 a z 470\nD1 0 z Z5\nR2 z 0 1k\n${D}.end`],
  ['diode in reverse', `reverse\nV1 a 0 5\nR1 a b 1meg\nD1 0 b DS\n${D}.end`],
  ['common emitter', `ce\nV1 vcc 0 12\nR1 vcc b 47k\nR2 b 0 10k\nR3 vcc c 2.2k\nR4 e 0 470\nQ1 c b e NS\n${Q}.end`],
  ['saturated switch', `switch\nV1 vcc 0 12\nR1 vcc b 4.7k\nR2 vcc c 320\nQ1 c b 0 NS\n${Q}.end`],
  ['PNP follower', `pnp\nV1 vcc 0 9\nR1 vcc b 22k\nR2 b 0 10k\nR3 vcc e 1k\nQ1 0 b e PS\n${Q}.end`],
  ['long-tailed pair', `ltp\nV1 vcc 0 12\nV2 vee 0 -12\nV3 in 0 10m\nQ1 c1 in e NS\nQ2 c2 0 e NS\nR1 vcc c1 10k\nR2 vcc c2 10k\nR3 e vee 10k\n${Q}.end`],
  ['current mirror', `mirror\nV1 vcc 0 5\nR1 vcc a 4.7k\nQ1 a a 0 NS\nQ2 b a 0 NS\nR2 vcc b 1k\n${Q}.end`],
  ['Darlington', `darlington\nV1 vcc 0 12\nR1 vcc b 1meg\nQ1 vcc b m NS\nQ2 vcc m e NS\nR2 e 0 100\n${Q}.end`],
  [
    'high current roll-off',
    'rolloff\nV1 vcc 0 5\nR1 vcc b 100\nR2 vcc c 10\nQ1 c b 0 HI\n.model HI NPN(IS=1E-14 BF=100 IKF=0.1 ISE=1E-13 NE=1.5 VAF=50 RB=5)\n.end',
  ],
  ['N-channel switch', 'nmos\nV1 vdd 0 12\nV2 g 0 5\nR1 vdd d 100\nM1 d g 0 0 NM\n.model NM NMOS(LEVEL=1 VTO=2 KP=0.2 LAMBDA=0.01)\n.end'],
  [
    'P-channel high side',
    'pmos\nV1 vdd 0 12\nR1 vdd g 10k\nR2 g 0 10k\nM1 o g vdd vdd PM\nR3 o 0 220\n.model PM PMOS(LEVEL=1 VTO=-2 KP=0.1 LAMBDA=0.02)\n.end',
  ],
  [
    'MOSFET with body effect',
    'body\nV1 vdd 0 10\nV2 g 0 6\nR1 vdd d 1k\nR2 s 0 470\nM1 d g s 0 NB W=20u L=10u\n.model NB NMOS(LEVEL=1 VTO=1 KP=1e-3 GAMMA=0.4 PHI=0.65)\n.end',
  ],
  ['JFET source follower', 'jfet\nV1 vdd 0 15\nR1 vdd d 1k\nR2 s 0 2.2k\nR3 g 0 1meg\nJ1 d g s JN\n.model JN NJF(VTO=-2 BETA=1m LAMBDA=0.01 IS=1E-14)\n.end'],
];
