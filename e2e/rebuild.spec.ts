/**
 * A whole demo made again as a builder would: its list and deck given, then every board, option, point, place, pair of neighbours,
 * need, claim, stage and check through its form, by role and name. Its windows come out the same.
 */
import { expect, type Locator, type Page, test } from '@playwright/test';
import { type KitState, newKit, type RecordOf, type Sheet } from '../src/core/kit';
import { allWindows, windowInputs } from '../src/core/stage';
import { DEMOS } from '../src/stand-in';
import { LINE_FIELDS, lineToForm } from '../src/ui/sheet/lineFields';
import { type Field, type FormValues, valuesOf } from '../src/ui/sheet/records/fields';
import {
  BOARDS,
  checkToForm,
  CLAIMS,
  MEASURE_FIELDS,
  NEEDS,
  NEIGHBOURS,
  OBSERVE_FIELDS,
  OPTIONS,
  PLACEMENT,
  STAGE_FIELDS,
  TEST_POINTS,
} from '../src/ui/sheet/records/specs';
import { choose, command, makeKit, storedKit } from './bench';

const STAMP = { id: 'made', at: '2026-01-01T00:00:00.000Z' };
const DEMO: KitState = DEMOS.find((d) => d.slug === 'wind-dial')!.kit(STAMP);

/** The list as a seller prints it: what else a line says is typed afterwards. */
const LIST = DEMO.sheet.lines.map((l) => `${l.refs.join(', ')}\t${l.quantity}\t${l.label}`).join('\n');

/** Types what a form shows of a record into its open drawer. */
async function fill(drawer: Locator, fields: readonly Field[], values: FormValues, before: FormValues = {}): Promise<void> {
  for (const field of fields) {
    const value = values[field.key];
    if (JSON.stringify(value ?? '') === JSON.stringify(before[field.key] ?? '')) continue;
    const box = drawer.getByLabel(field.label, { exact: true });
    switch (field.type) {
      case 'choice':
        await choose(box, field.options.find((o) => o.value === value)!.label);
        break;
      case 'flag':
        await box.click();
        break;
      case 'names':
        for (const name of value as string[]) {
          await box.fill(name);
          await box.press('Enter');
        }
        await box.press('Tab');
        break;
      case 'several':
        for (const chosen of value as string[]) await drawer.getByRole('checkbox', { name: field.options.find((o) => o.value === chosen)!.label }).check();
        break;
      case 'pair':
        for (const [i, which] of ['one', 'the other'].entries()) {
          const half = drawer.getByLabel(`${field.label}: ${which}`);
          await half.fill((value as string[])[i]!);
          await half.press('Tab');
        }
        break;
      case 'limits':
        for (const [i, word] of ['from', 'to'].entries()) await drawer.getByLabel(`${field.label}, ${word}`).fill((value as string[])[i]!);
        break;
      case 'rows': {
        const rows = drawer.getByRole('region', { name: field.label });
        for (const away of await rows.getByRole('button', { name: /^Take row/ }).all()) await away.click();
        for (const [i, row] of (value as FormValues[]).entries()) {
          await rows.getByRole('button', { name: field.add }).click();
          for (const f of field.of) {
            if ((row[f.key] ?? '') === '' || row[f.key] === field.initial?.[f.key]) continue;
            const nth = f.type === 'pair' ? rows.getByLabel(`${f.label}: one`).nth(i) : rows.getByLabel(f.label, { exact: true }).nth(i);
            if (f.type === 'choice') await choose(nth, f.options.find((o) => o.value === row[f.key])!.label);
            else if (f.type === 'pair') {
              await nth.fill((row[f.key] as string[])[0]!);
              await rows
                .getByLabel(`${f.label}: the other`)
                .nth(i)
                .fill((row[f.key] as string[])[1]!);
              await nth.press('Tab');
            } else {
              await nth.fill(String(row[f.key]));
              await nth.press('Tab');
            }
          }
        }
        break;
      }
      case 'name':
      case 'place':
        await box.fill((value as string | undefined) ?? '');
        await box.press('Tab');
        break;
      default:
        await box.fill((value as string | undefined) ?? '');
    }
  }
}

async function save(page: Page): Promise<void> {
  const drawer = page.getByRole('dialog');
  await drawer.getByRole('button', { name: 'Save' }).click();
  await expect(drawer).toHaveCount(0);
}

type Room = 'boards' | 'options' | 'testPoints' | 'neighbours' | 'placement' | 'needs' | 'claims';
interface Form<R extends Room> {
  readonly title: string;
  readonly one: string;
  readonly fields: (kit: KitState) => readonly Field[];
  readonly make: (kit: KitState) => RecordOf<R>;
}

/** All records of a room, each through “Add”. */
async function addAll<R extends Room>(page: Page, spec: Form<R>, room: R): Promise<void> {
  const section = page.getByRole('region', { name: spec.title, exact: true });
  const fields = spec.fields(DEMO);
  for (const { value } of DEMO.rooms[room].values()) {
    await section.getByRole('button', { name: `Add ${spec.one.toLowerCase()}` }).click();
    const drawer = page.getByRole('dialog');
    await expect(drawer.getByRole('button', { name: 'Save' })).toBeVisible();
    await fill(drawer, fields, valuesOf(fields, value));
    await save(page);
  }
}

/** Takes away what was proposed: it is made again by hand. */
async function empty(section: Locator): Promise<void> {
  const gone = section.getByRole('button', { name: /^Remove / });
  for (let left = await gone.count(); left > 0; left = await gone.count()) {
    await gone.first().click();
    await expect(gone).toHaveCount(left - 1);
  }
}

const tab = (page: Page, name: string) => page.getByRole('radiogroup', { name: 'Parts of the sheet' }).getByText(name, { exact: true }).click();

async function correctLines(page: Page): Promise<void> {
  const { sheet } = await storedKit(page);
  for (const wanted of DEMO.sheet.lines) {
    const made = sheet.lines.find((l) => l.refs[0] === wanted.refs[0])!;
    const fields = LINE_FIELDS(DEMO, made.kind);
    const [is, shall] = [valuesOf(fields, lineToForm(made)), valuesOf(fields, lineToForm(wanted))];
    if (JSON.stringify(is) === JSON.stringify(shall)) continue;
    await page
      .getByRole('row')
      .filter({ has: page.getByRole('cell', { name: wanted.refs.join(' '), exact: true }) })
      .getByRole('button', { name: /^Change / })
      .click();
    await fill(page.getByRole('dialog'), fields, shall, is);
    await save(page);
  }
}

async function nameElements(page: Page): Promise<void> {
  await command(page, 'Circuit');
  await page.getByText('Findings', { exact: true }).click();
  for (const [ref, element] of Object.entries(DEMO.sheet.circuit!.elements!)) {
    await choose(page.getByRole('combobox', { name: `Name of ${ref} in the deck` }), element);
    await expect.poll(async () => (await storedKit(page)).sheet.circuit!.elements?.[ref]).toBe(element);
  }
}

async function writeStages(page: Page): Promise<void> {
  const ladder = page.getByRole('region', { name: 'Ladder' });
  await empty(ladder);
  const stageFields = STAGE_FIELDS(DEMO);
  for (const stage of DEMO.sheet.stages) {
    await ladder.getByRole('button', { name: 'Add stage' }).click();
    const drawer = page.getByRole('dialog');
    await expect(drawer.getByRole('button', { name: 'Save' })).toBeVisible();
    const { checks, ...record } = stage;
    await fill(drawer, stageFields, valuesOf(stageFields, record));
    await save(page);
    const list = page.getByRole('region', { name: 'Checks of the stage' });
    await expect(list.getByRole('heading', { name: `Checks of “${stage.title}”` })).toBeVisible();
    for (const check of checks) {
      const measures = check.what === 'measure';
      await list.getByRole('button', { name: measures ? 'Add measurement' : 'Add observation' }).click();
      const fields = measures ? MEASURE_FIELDS(DEMO) : OBSERVE_FIELDS(DEMO);
      await expect(drawer.getByRole('button', { name: 'Save' })).toBeVisible();
      await fill(drawer, fields, valuesOf(fields, checkToForm({ stage: stage.id, ...check })), { mode: 'dcv', black: 'ground' });
      await save(page);
    }
  }
}

/** A sheet without the names that nobody sees. */
function plain(sheet: Sheet) {
  const { lines, stages, options, needs, claims, circuit, testPoints, placement, boards } = sheet;
  const nameless = <T extends { readonly id: string }>(all: readonly T[]) => all.map(({ id: _, ...rest }) => rest);
  return JSON.parse(
    JSON.stringify({
      lines: nameless(lines),
      // What feeds a DC source is a bench supply or an adapter, said or not.
      stages: nameless(stages).map((s) => ({
        ...s,
        supplies: s.supplies.map(({ feed, ...x }) => (feed === 'dc' ? x : { ...x, feed })),
        checks: nameless(s.checks),
      })),
      options: nameless(options),
      needs: nameless(needs),
      claims: nameless(claims),
      circuit: { ...circuit, deck: circuit!.deck.trim() },
      testPoints,
      placement,
      boards,
    }),
  ) as object;
}

/** Windows of all checks, in the order of the ladder. */
function windowsOf(sheet: Sheet) {
  const all = allWindows(windowInputs(newKit(sheet, STAMP))!);
  return sheet.stages.map((s) => s.checks.map((c) => all[`${s.id}/${c.id}`] ?? null));
}

test.use({ actionTimeout: 10_000 });

test('the wind dial is made again through its forms, and has the same windows', async ({ page }) => {
  test.setTimeout(400_000);
  await makeKit(page, DEMO.sheet.title, LIST, DEMO.sheet.circuit!.deck);
  await command(page, 'Sheet');
  await correctLines(page);
  await tab(page, 'Boards, options, claims');
  for (const [label, value] of [
    ['Maker or seller', DEMO.sheet.maker],
    ['Edition', DEMO.sheet.edition],
    ['Note', DEMO.sheet.note],
  ] as const)
    await page.getByLabel(label, { exact: true }).fill(value!);
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await empty(page.getByRole('region', { name: 'Boards', exact: true }));
  await addAll(page, BOARDS, 'boards');
  await addAll(page, OPTIONS, 'options');
  await addAll(page, NEEDS, 'needs');
  await addAll(page, CLAIMS, 'claims');
  await nameElements(page);
  await command(page, 'Sheet');
  await tab(page, 'Test points and places');
  await empty(page.getByRole('region', { name: 'Test points', exact: true }));
  await addAll(page, TEST_POINTS, 'testPoints');
  await addAll(page, NEIGHBOURS, 'neighbours');
  await addAll(page, PLACEMENT, 'placement');
  await tab(page, 'Stages and checks');
  await writeStages(page);

  const made = (await storedKit(page)).sheet;
  expect(plain(made)).toEqual(plain(DEMO.sheet));
  expect(windowsOf(made)).toEqual(windowsOf(DEMO.sheet));
});
