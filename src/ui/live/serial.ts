import type { LineTransport } from '@/core/instrument';

/** The part of the browser's serial interface that is used here (Web Serial, WICG draft). */
interface SerialPort {
  readonly readable: ReadableStream<Uint8Array> | null;
  readonly writable: WritableStream<Uint8Array> | null;
  open: (options: { baudRate: number }) => Promise<void>;
  close: () => Promise<void>;
}
interface Serial {
  requestPort: () => Promise<SerialPort>;
}

const serialOf = (): Serial | null => ('serial' in navigator ? (navigator.serial as Serial) : null);

/** Usual speeds, baud. */
export const SPEEDS: readonly number[] = [2400, 4800, 9600, 19200, 38400, 57600, 115200];

/** Whether this browser can open a serial port at all. */
export const hasSerial = (): boolean => serialOf() !== null;

/** Lines longer than this are no readings: a wrong speed sends rubbish without an end. */
const LONGEST_LINE = 400;
const MOST_WAITING = 50;

/**
 * Asks the browser for a port and opens it.
 * @throws Error when none was chosen or it is in use.
 */
export async function openSerial(baudRate: number): Promise<LineTransport> {
  const serial = serialOf();
  if (!serial) throw new Error('This browser has no serial ports.');
  const port = await serial.requestPort();
  await port.open({ baudRate });
  return linesOf(port);
}

function linesOf(port: SerialPort): LineTransport {
  const lines: string[] = [];
  let begun = '';
  let ended: Error | null = null;
  let wake: (() => void) | null = null;
  const reader = port.readable!.getReader();
  const writer = port.writable!.getWriter();
  const decoder = new TextDecoder();
  const listen = async () => {
    for (;;) {
      const { value, done } = await reader.read();
      if (done) return;
      const parts = (begun + decoder.decode(value, { stream: true })).split(/[\r\n]+/);
      begun = parts.pop()!.slice(-LONGEST_LINE);
      lines.push(...parts.filter((p) => p.trim() !== '').map((p) => p.slice(0, LONGEST_LINE)));
      lines.splice(0, Math.max(0, lines.length - MOST_WAITING));
      wake?.();
    }
  };
  void listen().catch((e: unknown) => {
    ended = e instanceof Error ? e : new Error('The line ended.');
    wake?.();
  });
  const next = (milliseconds: number): Promise<string | null> => {
    if (ended) return Promise.reject(ended);
    const line = lines.shift();
    if (line !== undefined) return Promise.resolve(line);
    return new Promise((resolve, reject) => {
      const timer = setTimeout(() => {
        wake = null;
        resolve(null);
      }, milliseconds);
      wake = () => {
        clearTimeout(timer);
        wake = null;
        if (ended) reject(ended);
        else resolve(lines.shift() ?? null);
      };
    });
  };
  return {
    send: (line) => writer.write(new TextEncoder().encode(`${line}\n`)),
    receive: next,
    close: async () => {
      await reader.cancel().catch(() => undefined);
      writer.releaseLock();
      reader.releaseLock();
      await port.close();
    },
  };
}
