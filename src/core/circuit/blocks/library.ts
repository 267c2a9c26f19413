import { LED_FORWARD, ledForward } from '../../vocabulary';
import { VT } from '../solve/junction';

/** A piece of deck text that blocks share, with where its figures come from. */
export interface LibraryItem {
  readonly name: string;
  readonly text: string;
  readonly source: string;
}

const PRACTICE = 'usual figures, common practice, no source';
const TEXTBOOK = 'textbook behaviour from controlled sources and ideal diodes';
const item = (name: string, text: string, source = PRACTICE): LibraryItem => ({ name, text, source });

const LED_EMISSION = 2;
const LED_SERIES_OHMS = 3;

/** Model card of an LED by its colour: saturation current from its forward voltage at 10 mA (diode equation). */
export function ledModel(colour: string): LibraryItem {
  const volts = (ledForward(colour) ?? LED_FORWARD.red).at10mA;
  const is = 0.01 / Math.exp((volts - 0.01 * LED_SERIES_OHMS) / (LED_EMISSION * VT));
  // A model's name is one word: `warm white` is LEDWARMWHITE.
  const name = `LED${colour.toUpperCase().replace(/[^A-Z0-9]/g, '') || 'RED'}`;
  return item(name, `.model ${name} D(IS=${is.toExponential(3)} N=${LED_EMISSION} RS=${LED_SERIES_OHMS} BV=30 IBV=1E-5)`);
}

/** Model card of a zener diode: breakdown at its voltage at 5 mA. */
export function zenerModel(volts: number): LibraryItem {
  const name = `Z${String(volts).replace('.', 'V')}`;
  return item(name, `.model ${name} D(IS=1E-14 N=1.1 RS=6 BV=${volts} IBV=5E-3)`);
}

const IDEAL = '.model DLIM D(IS=1E-12 N=0.05)';

export const MODELS = {
  signalDiode: item('DSIGNAL', '.model DSIGNAL D(IS=4E-9 N=1.9 RS=0.6 BV=100 IBV=1E-5)'),
  rectifier: item('DRECTIFIER', '.model DRECTIFIER D(IS=7E-9 N=1.8 RS=0.04 BV=400 IBV=1E-5)'),
  schottky: item('DSCHOTTKY', '.model DSCHOTTKY D(IS=1E-6 N=1.05 RS=0.1 BV=40 IBV=1E-5)'),
  npn: item('NSMALL', '.model NSMALL NPN(IS=1.5E-14 BF=250 NF=1 VAF=80 BR=4 RC=0.5 RE=0.1)'),
  pnp: item('PSMALL', '.model PSMALL PNP(IS=2E-14 BF=220 NF=1 VAF=60 BR=4 RC=0.5 RE=0.1)'),
  npnPower: item('NPOWER', '.model NPOWER NPN(IS=1E-12 BF=80 VAF=100 BR=4 RC=0.05 RE=0.02)'),
  pnpPower: item('PPOWER', '.model PPOWER PNP(IS=1E-12 BF=80 VAF=100 BR=4 RC=0.05 RE=0.02)'),
  nmos: item('NSWITCH', '.model NSWITCH NMOS(LEVEL=1 VTO=2 KP=0.5 LAMBDA=0.01)'),
  pmos: item('PSWITCH', '.model PSWITCH PMOS(LEVEL=1 VTO=-2 KP=0.5 LAMBDA=0.01)'),
  pjf: item('PJFET', '.model PJFET PJF(VTO=-2 BETA=1E-3 LAMBDA=0.01 IS=1E-14)'),
  njf: item('NJFET', '.model NJFET NJF(VTO=-2 BETA=1E-3 LAMBDA=0.01 IS=1E-14)'),
  /** Rails limit the output, the supply carries what it delivers and a quiescent current. Without a supply the two limits contradict each other: their resistors settle it. */
  opamp: item(
    'OPAMP',
    `.subckt OPAMP inp inn vp vn out
Rin inp inn 5MEG
Rq vp vn 12k
G1 0 x inp inn 1E-3
Rx x 0 1E8
Eh hr 0 vp 0 1
Vh hr hl 1.5
Rh hl hd 10
Dh x hd DLIM
El lr 0 vn 0 1
Rl lr ld 10
Dl ld x DLIM
Eb bb 0 x 0 1
Qh vp bb o NOUT
Ql vn bb o POUT
Ro o out 50
${IDEAL}
.model NOUT NPN(IS=1E-14 BF=200)
.model POUT PNP(IS=1E-14 BF=200)
.ends OPAMP`,
    TEXTBOOK,
  ),
  /** Its output can only pull down. */
  openCollector: item(
    'COMPARATOR',
    `.subckt COMPARATOR inp inn vp vn out
Rin inp inn 5MEG
Rq vp vn 15k
Gx vn x inn inp 1E-2
Rx x vn 1E7
Dh x h DLIM
Vh h vn 2
Dl vn x DLIM
Rb x b 2k
Qo out b vn NOUT
${IDEAL}
.model NOUT NPN(IS=1E-14 BF=100)
.ends COMPARATOR`,
    TEXTBOOK,
  ),
  /** x is ten thousand times the output current in volts, so that the limiter diodes' own drop counts for nothing. Output v, but never above input less drop; `lim` amperes at most; only delivers. */
  regulator: item(
    'REGULATOR',
    `.subckt REGULATOR vin gnd vout v=5 drop=2 iq=5m lim=1.5
Rq vin gnd {(v+drop)/iq}
Vr ra gnd {v}
Rr ra rb 1k
Dc rb rc DLIM
Ee re gnd vin gnd 1
Vd re rc {drop}
Gx gnd x rb vout 20
Rx x gnd 10k
Dx x xl DLIM
Vl xl gnd {lim*10k}
Dn gnd x DLIM
Go gnd vout x gnd 1E-4
Gi vin gnd x gnd 1E-4
${IDEAL}
.ends REGULATOR`,
    `${TEXTBOOK}; drop-out, quiescent current and limit of the common types from memory`,
  ),
  /** vref between output and adjust; iadj out of the adjust pin; iq flows out of the output whether wanted or not. */
  adjustable: item(
    'ADJUSTABLE',
    `.subckt ADJUSTABLE vin adj vout vref=1.25 iadj=50u iq=3.5m drop=2 lim=1.5
Ea ra 0 adj 0 1
Vr rr ra {vref}
Rr rr rb 1k
Dc rb rc DLIM
Ee re 0 vin 0 1
Vd re rc {drop}
Gx 0 x rb vout 20
Rx x 0 10k
Dx x xl DLIM
Vl xl 0 {lim*10k}
Dn 0 x DLIM
Go vin vout x 0 1E-4
Ia vin adj {iadj}
Iq vin vout {iq}
${IDEAL}
.ends ADJUSTABLE`,
    'Vout = Vref (1 + R2/R1) + Iadj R2 (data sheet formula, from memory); least load from memory',
  ),
  shunt: item(
    'SHUNTREF',
    `.subckt SHUNTREF k a r v=2.495
Vs s a {v}
Gx 0 x r s 1
Rx x 0 10k
Dn 0 x DLIM
Gk k a x 0 5E-4
Rk k a 1E6
${IDEAL}
.ends SHUNTREF`,
    'shunt reference by its data sheet formula, from memory',
  ),
} as const;

/** Ohms of a thermistor at a temperature: R25 exp(B (1/T − 1/298.15 K)) (B-parameter equation, textbook). */
export const thermistorOhms = (ohmsAt25: number, beta: number, celsius: number) => ohmsAt25 * Math.exp(beta * (1 / (celsius + 273.15) - 1 / 298.15));
