/** A recording is never larger than this, bytes: some ten million rows. */
const MOST_BYTES = 300 * 1024 * 1024;
/** So many bytes tell text from something else. */
const SAMPLE = 4000;

/**
 * Text of a recording's file, in UTF-16 by its mark, else UTF-8, else Western European.
 * @throws Error with what is wrong with the file and what to do
 */
export async function readRecordingFile(file: File): Promise<string> {
  if (file.size > MOST_BYTES)
    throw new Error(`${file.name} has ${Math.round(file.size / 1024 / 1024)} MB: more than can be read here. Export a shorter stretch, or fewer channels.`);
  const bytes = new Uint8Array(await file.arrayBuffer());
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (first === 0xfe && second === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  const sample = bytes.subarray(0, SAMPLE);
  if (sample.some((b) => b < 9)) throw new Error(`${file.name} is no text. Export the recording as CSV, with time and volts in columns.`);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
