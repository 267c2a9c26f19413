/** Copies a text. Rejects where the browser has no clipboard for this page (plain HTTP), or refuses it. */
export async function copyText(text: string): Promise<void> {
  if (!('clipboard' in navigator)) throw new Error('This page has no clipboard.');
  await navigator.clipboard.writeText(text);
}
