import { makeSheet, readDraft } from '@/core/bench/newKit';
import { newKit, openKit } from '@/core/kit';
import { DEMOS } from '@/stand-in/demos';
import { stamp } from './bench';
import { loadKit, saveKit } from './storage';

export const shelfDemos = DEMOS.map(({ slug, title, about }) => ({ slug, title, about }));

/** Puts a fresh demo on the shelf; returns its id. */
export async function openDemo(slug: string): Promise<string> {
  const kit = DEMOS.find((d) => d.slug === slug)!.kit(stamp());
  await saveKit(kit);
  return kit.id;
}

/**
 * Puts a kit file on the shelf; returns its id. A kit that is there already is united with it, entry by entry.
 * @throws Error with what is wrong with the file; nothing is changed then.
 */
export async function openFile(file: File): Promise<string> {
  const opened = openKit(await file.text());
  if (!opened.ok) throw new Error(`${file.name}: ${opened.message}`);
  const known = await loadKit(opened.kit.id);
  const clash = known?.ok === false;
  const kit = clash ? { ...opened.kit, id: stamp().id } : opened.kit;
  await saveKit(kit);
  return kit.id;
}

/** Makes a kit from a pasted list and deck; returns its id. */
export async function createKit(title: string, draft: ReturnType<typeof readDraft>, deck: string, nets: readonly string[]): Promise<string> {
  const kit = newKit(makeSheet(title, draft, deck, nets), stamp());
  await saveKit(kit);
  return kit.id;
}
