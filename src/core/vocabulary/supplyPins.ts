/** Pins of a chip's supply, as its data sheet numbers them (data sheets, from memory). */
export interface SupplyPins {
  readonly plus: string;
  readonly minus: string;
}

const pins = (plus: number, minus: number): SupplyPins => ({ plus: String(plus), minus: String(minus) });

/** Logic in 14 and in 20 pins; the rest of the two families has 16. */
const LOGIC_14 =
  /^(?:4(?:000|001|002|006|007|011|012|013|016|023|025|030|066|068|069|070|071|072|073|075|077|078|081|082|093|106|584)|40106|(?:00|02|03|04|05|06|07|08|10|11|14|20|21|27|30|32|74|86|107|125|126|132|164|393)$)/;
const LOGIC_20 = /^(?:240|241|244|245|273|373|374|540|541|573|574|640|688)$/;
/** Old types whose supply lies in the middle of a row. */
const ODD_LOGIC: Readonly<Record<string, SupplyPins>> = {
  4049: pins(1, 8),
  4050: pins(1, 8),
  73: pins(4, 11),
  75: pins(5, 12),
  76: pins(5, 13),
  83: pins(5, 12),
  90: pins(5, 10),
  92: pins(5, 10),
  93: pins(5, 10),
};

const BY_TYPE: readonly (readonly [RegExp, SupplyPins])[] = [
  [/^(?:NE|LM|SE|TLC|ICM|LMC|CA|KA|NA|HA)?7?555/, pins(8, 1)],
  [/^(?:NE|LM|SE|TLC|ICM|CA|KA)?7?556/, pins(14, 7)],
  [/^NE567|^LM567/, pins(4, 7)],
  [/^(?:LM|KA|CA|UA)(?:324|2902)/, pins(4, 11)],
  [/^(?:LM|KA|CA)(?:339|2901)/, pins(3, 12)],
  [/^(?:TL0[678]4|MCP6004|LMV324)/, pins(4, 11)],
  [/^(?:LM|KA|CA|UA|RC|MC)?741|^TL0[678]1|^OP0?7$|^OP27|^NE5534|^CA3140/, pins(7, 4)],
  [/^(?:LM|KA|CA|RC|JRC|NJM|MC)(?:358|393|2903|2904|4558|4560|4580|1458)|^TL0[678]2|^NE5532|^MCP6002|^LMV358|^OP275|^TLC27[24]?2/, pins(8, 4)],
  [/^LM386|^JRC386|^KA386/, pins(6, 4)],
  [/^TDA2822/, pins(2, 4)],
  [/^TDA20[035]\d|^LM1875/, pins(5, 3)],
  [/^LM391[456]/, pins(3, 2)],
  [/^(?:ATTINY|TINY)(?:13|25|45|85)/, pins(8, 4)],
  [/^(?:ATTINY|AT90S)2313|^(?:AT)?89C[24]051/, pins(20, 10)],
  [/^ATMEGA(?:8|48|88|168|328)/, pins(7, 8)],
  [/^(?:AT)?89[CS]5[12]|^STC89C5[12]|^8051/, pins(40, 20)],
  [/^(?:PIC)?(?:12F|12C|10F)/, pins(1, 8)],
  [/^(?:PIC)?16F(?:630|676|684|688|1823|1825)/, pins(1, 14)],
  [/^(?:PIC)?16(?:F|C)(?:54|84|628|648|88|87$|716)/, pins(14, 5)],
  [/^24C\d|^AT24C/, pins(8, 4)],
  [/^MAX232/, pins(16, 15)],
  [/^PCF8574/, pins(16, 8)],
  [/^DS130[27]/, pins(8, 4)],
  [/^UM66|^BT66/, pins(2, 3)],
];

/** Supply pins of a chip by its type; null where the type is not known: then the instructions tell. */
export function supplyPins(type: string): SupplyPins | null {
  const word = type.toUpperCase().replace(/[\s-]/g, '');
  const known = BY_TYPE.find(([pattern]) => pattern.test(word));
  if (known) return known[1];
  const logic = /^(?:CD|HEF|TC|MC1|HCF|SN|MM|DM|M)?(?:(?:74|54)(?:HCT|HC|LS|ALS|AS|AHCT|AHC|ACT|AC|F|S|C|L)?(\d{2,4})|(4\d{3,4}))(?:[A-Z]*)$/.exec(word);
  if (!logic) return null;
  const number = (logic[1] ?? logic[2])!;
  return ODD_LOGIC[number] ?? (LOGIC_14.test(number) ? pins(14, 7) : LOGIC_20.test(number) ? pins(20, 10) : pins(16, 8));
}
