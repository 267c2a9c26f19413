/** Instruments at the end of a line: SCPI answers, lines learnt by example, hold and take, and a meter that misbehaves. */
import fc from 'fast-check';
import {
  EMPTY_HOLD,
  hear,
  type Hold,
  InstrumentSession,
  learnLines,
  modeOfAnswer,
  readingOfAnswer,
  readOwnLine,
  STEADY_MS,
  SupplySession,
  touches,
} from '@/core/instrument';
import type { MeterMode } from '@/core/vocabulary';
import { SimulatedMeter, SimulatedSupply } from '@/stand-in';

describe('SCPI answers (SCPI-99: numbers beyond 9.9E37 mean infinity)', () => {
  test.each([
    ['+4.98213000E+00', 4.98213],
    ['-1.2e-3', -0.0012],
    ['9.90000000E+37', 'over'],
    ['+9.9E37\r', 'over'],
    ['#.98213', null],
    ['+4.98,+1', null],
    ['', null],
    ['OK', null],
  ])('READ? answered with %s', (answer, value) => {
    expect(readingOfAnswer(answer)).toBe(value);
  });
  test.each([
    ['"VOLT +1.00000000E+01,+3.00000000E-06"', 'dcv'],
    ['VOLT:AC 10,0.001', 'acv'],
    ['"RES +1.0E+03"', 'ohms'],
    ['FREQ 3,1e-3', 'frequency'],
    ['"FRES 100"', 'ohms'],
    ['busy', null],
  ])('CONF? answered with %s', (answer, mode) => {
    expect(modeOfAnswer(answer)).toBe(mode);
  });
});

describe('a meter that only talks', () => {
  test.each([
    ['DC  4.982 V', { value: 4.982, mode: 'dcv' }],
    ['AC 12,30 mV', { value: 0.0123, mode: 'acv' }],
    ['  0.123 kOhm', { value: 123, mode: 'ohms' }],
    ['OL MOhm', { value: 'over', mode: 'ohms' }],
    ['98.7nF', { value: 98.7e-9, mode: 'capacitance' }],
    ['DIODE 0.612 V', { value: 0.612, mode: 'diode' }],
    ['low battery', null],
  ])('%s', (line, read) => {
    const got = readOwnLine(line, { mode: null, scale: 1 });
    if (read === null) expect(got).toBeNull();
    else {
      expect(got).toMatchObject({ mode: read.mode });
      if (typeof read.value === 'number') expect(got!.value as number).toBeCloseTo(read.value, 12);
      else expect(got!.value).toBe(read.value);
    }
  });
  test('a line without a unit is learnt from what the display showed', () => {
    const learnt = learnLines(
      [
        { line: '04982', shows: '4.982 V' },
        { line: '00120', shows: '0.120 V' },
      ],
      'dcv',
    );
    expect(learnt).toEqual({ ok: true, format: { mode: 'dcv', scale: 1e-3 } });
  });
  test('a line that would be read otherwise than the display is named', () => {
    expect(
      learnLines(
        [
          { line: '4.982 V', shows: '4.982 V' },
          { line: '1.200 V', shows: '12 V' },
        ],
        'dcv',
      ),
    ).toMatchObject({ ok: false, line: 1 });
    expect(learnLines([{ line: 'hello', shows: '5 V' }], 'dcv')).toMatchObject({ ok: false, line: 0 });
  });
});

/** Hears readings 100 ms apart; what was taken, with its moment. */
function stream(values: readonly (number | 'over')[], mode: MeterMode = 'dcv', step = 0.001) {
  let hold: Hold = EMPTY_HOLD;
  const taken: { at: number; value: number }[] = [];
  values.forEach((value, i) => {
    const answer = hear(hold, 100 * i, value, mode, step);
    hold = answer.hold;
    if (answer.take !== null) taken.push({ at: 100 * i, value: answer.take });
  });
  return taken;
}
const many = <T>(n: number, v: T): T[] => Array.from({ length: n }, () => v);

describe('hold and take', () => {
  test('still for a second: taken once, however long it is held', () => {
    expect(stream(many(60, 4.98))).toEqual([{ at: STEADY_MS, value: 4.98 }]);
  });
  test('while it settles nothing is taken', () => {
    expect(stream(Array.from({ length: 30 }, (_, i) => 5 - 2 * Math.exp(-i / 8)))).toEqual([]);
  });
  test('lifted and put to the next point: the next is taken', () => {
    expect(stream([...many(15, 4.98), ...many(4, 0.0002), ...many(15, 2.5)]).map((t) => t.value)).toEqual([4.98, 2.5]);
  });
  test('probes apart: neither 0 V nor over-range is taken by itself', () => {
    expect(stream(many(40, 0.0003))).toEqual([]);
    expect(stream(many(40, 'over' as const), 'ohms')).toEqual([]);
    expect(touches('capacitance', 5e-12)).toBe(false);
  });
  test('whatever the stream, a reading is taken only after a second within the meter’s steps of it', () => {
    fc.assert(
      fc.property(fc.array(fc.oneof(fc.constantFrom(4.98, 4.981, 0.0001, 2.5), fc.double({ min: -20, max: 20, noNaN: true })), { maxLength: 80 }), (values) => {
        for (const { at, value } of stream(values)) {
          const last = values.slice(at / 100 - STEADY_MS / 100, at / 100 + 1);
          expect(last.length).toBe(STEADY_MS / 100 + 1);
          for (const v of last) expect(Math.abs(v - value)).toBeLessThanOrEqual(Math.max(0.003, 0.003 * Math.abs(value)) * 1.01);
        }
      }),
    );
  });
});

/** A bench whose clock runs only where somebody waits. */
function bench(options: { garbled?: number; silent?: number } = {}, seed = 7) {
  let time = 0;
  const sleep = (ms: number) => {
    time += ms;
    return Promise.resolve();
  };
  const meter = new SimulatedMeter({ seed, now: () => time, sleep, ...options });
  return { meter, session: new InstrumentSession(meter, { kind: 'scpi' }), now: () => time, sleep };
}

describe('the simulated meter', () => {
  test('says who it is, takes the mode, settles and reads', async () => {
    const { meter, session, sleep } = bench();
    expect(await session.identify()).toBe('Simulated bench meter');
    meter.touch({ mode: 'dcv', value: 4.98 });
    await sleep(3000);
    const polled = await session.poll('dcv');
    expect(polled).toMatchObject({ state: 'reading', mode: 'dcv' });
    expect(Math.abs((polled as { value: number }).value - 4.98)).toBeLessThan(0.003);
    expect(await session.poll('hfe')).toEqual({ state: 'cannot' });
  });
  test('lifted it reads next to nothing on volts and over-range on ohms', async () => {
    const { session } = bench();
    expect(await session.poll('ohms')).toMatchObject({ value: 'over' });
    const volts = await session.poll('dcv');
    expect(Math.abs((volts as { value: number }).value)).toBeLessThan(0.01);
  });
  test('a meter that stays in another mode is never believed', async () => {
    const lines: string[] = [];
    const stuck = {
      send: (line: string) => {
        if (line === 'CONF?') lines.push('"RES +1.0E+03"');
        if (line === 'READ?') lines.push('+4.700E+03');
        return Promise.resolve();
      },
      receive: () => Promise.resolve(lines.shift() ?? null),
      close: () => Promise.resolve(),
    };
    expect(await new InstrumentSession(stuck, { kind: 'scpi' }).poll('dcv')).toEqual({ state: 'other-mode', mode: 'ohms' });
  });
  test('unplugged in the middle, the next question says so', async () => {
    const { meter, session } = bench();
    await session.poll('dcv');
    meter.unplug();
    await expect(session.poll('dcv')).rejects.toThrow('unplugged');
  });
  test('a hostile bench: 2 000 readings with garbled and missing answers, none of those taken is wrong', async () => {
    const { meter, session, now, sleep } = bench({ garbled: 0.15, silent: 0.1 }, 11);
    let hold: Hold = EMPTY_HOLD;
    let taken = 0;
    let readings = 0;
    for (let target = 0; readings < 2000; target++) {
      const mode: MeterMode = target % 3 === 0 ? 'ohms' : 'dcv';
      const truth = mode === 'ohms' ? 1000 + 137 * (target % 40) : 1 + (target % 17) * 0.61;
      const step = mode === 'ohms' ? 1 : 0.001;
      hold = EMPTY_HOLD;
      meter.touch(null);
      await sleep(300);
      meter.touch({ mode, value: truth });
      for (let i = 0; i < 60; i++) {
        const polled = await session.poll(mode);
        readings++;
        await sleep(100);
        if (polled.state !== 'reading') {
          hold = EMPTY_HOLD;
          continue;
        }
        const answer = hear(hold, now(), polled.value, mode, step);
        hold = answer.hold;
        if (answer.take === null) continue;
        taken++;
        expect(Math.abs(answer.take / truth - 1)).toBeLessThan(0.005);
        break;
      }
    }
    expect(taken).toBeGreaterThan(20);
  });
});

describe('a bench supply', () => {
  const supplied = (options: Partial<ConstructorParameters<typeof SimulatedSupply>[0]> = {}, seed = 5) => {
    const supply = new SimulatedSupply({ seed, sleep: () => Promise.resolve(), ...options });
    return { supply, session: new SupplySession(supply) };
  };

  test('is set, switched on and read back; a board that draws more stands in the limit, by Ohm’s law', async () => {
    const { supply, session } = supplied();
    expect(await session.identify()).toBe('Simulated bench supply');
    expect(await session.output(true)).toMatchObject({ state: 'refused' });
    expect(await session.adjust(12, 0.1)).toEqual({ state: 'done' });
    expect(await session.read()).toEqual({ on: false, volts: 0, amps: 0, limiting: false });
    supply.connect({ amps: 0.024, at: 12 });
    expect(await session.output(true)).toEqual({ state: 'done' });
    const healthy = (await session.read())!;
    expect(healthy).toMatchObject({ on: true, limiting: false });
    expect(healthy.amps).toBeCloseTo(0.024, 3);
    supply.connect({ amps: 0.4, at: 12 });
    const short = (await session.read())!;
    expect(short.limiting).toBe(true);
    expect(short.volts).toBeCloseTo(0.1 * 30, 1);
    expect(await session.output(false)).toEqual({ state: 'done' });
    expect(await session.read()).toMatchObject({ on: false, amps: 0 });
  });

  test('what it cannot give it says, and it is not switched on', async () => {
    const { session } = supplied();
    expect(await session.adjust(48, 0.1)).toMatchObject({ state: 'refused', said: expect.stringContaining('out of range') as string });
    expect(await session.output(true)).toMatchObject({ state: 'refused' });
  });

  test('one that takes other settings than it was told is found out', async () => {
    const answers: string[] = [];
    const coarse = {
      send: (line: string) => {
        if (line === 'SYST:ERR?') answers.push('0,"No error"');
        if (line === 'SOUR:VOLT?') answers.push('12.0');
        if (line === 'SOUR:CURR?') answers.push('3.0');
        return Promise.resolve();
      },
      receive: () => Promise.resolve(answers.shift() ?? null),
      close: () => Promise.resolve(),
    };
    expect(await new SupplySession(coarse).adjust(12, 0.1)).toEqual({ state: 'differs', volts: 12, limit: 3 });
  });

  test('a hostile bench: garbled and missing answers never pass for a setting, a switch or a reading', async () => {
    const { supply, session } = supplied({ garbled: 0.15, silent: 0.15 }, 3);
    supply.connect({ amps: 0.05, at: 9 });
    let [read, done] = [0, 0];
    for (let i = 0; i < 300; i++) {
      const told = await session.adjust(9, 0.2);
      if (told.state !== 'done') continue;
      done++;
      if ((await session.output(true)).state !== 'done') continue;
      const reading = await session.read();
      if (!reading) continue;
      read++;
      expect(reading).toMatchObject({ on: true, limiting: false });
      expect(reading.amps).toBeCloseTo(0.05, 3);
      expect(reading.volts).toBeCloseTo(9, 1);
    }
    expect(done).toBeGreaterThan(30);
    expect(read).toBeGreaterThan(5);
    supply.unplug();
    await expect(session.read()).rejects.toThrow('unplugged');
  });
});
