import { existsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Browser, Locator, Page } from 'playwright-core';
import { endpoints } from '@crow/contract/endpoints';
import { scanned, scratchFolder } from '@crow/server/testing/made';
import { openBrowser, openWindow } from './browser';
import { Program, until } from './program';

let program: Program;
let browser: Browser;
beforeAll(async () => {
  [program, browser] = await Promise.all([Program.start(), openBrowser()]);
});
afterAll(async () => {
  await browser?.close();
  await program?.end();
});

/** One way of working: how a control is pressed and how a field is written in, by nothing else. */
interface Hands {
  readonly page: Page;
  press(control: Locator): Promise<void>;
  /** Takes one of several: pages on the table, what a menu or a field offers. */
  choose(one: Locator): Promise<void>;
  write(field: Locator, text: string): Promise<void>;
}

/** More presses of Tab than any screen of the program has controls. */
const MOST_TABS = 150;

/** More presses of an arrow than any list of this test has lines. */
const MOST_ARROWS = 30;

/** Tab until the control has the cursor, Enter; in lists the arrows. A control that Tab doesn't come to can't be pressed. */
function keyboard(page: Page): Hands {
  const reach = async (control: Locator) => {
    await control.waitFor();
    for (let tabs = 0; tabs < MOST_TABS; tabs++) {
      if (await control.evaluate((element) => element === document.activeElement)) return;
      await page.keyboard.press('Tab');
    }
    throw new Error(`Tab doesn't come to ${control.toString()}`);
  };
  return {
    page,
    press: async (control) => {
      await reach(control);
      await page.keyboard.press('Enter');
    },
    choose: async (one) => {
      await one.waitFor();
      const marked = () =>
        one.evaluate(
          (element) =>
            element === document.activeElement ||
            (element.id !== '' && element.id === document.activeElement?.getAttribute('aria-activedescendant')),
        );
      const onTable = (await one.getAttribute('data-index')) !== null;
      if (onTable) await reach(page.locator('[data-index][tabindex="0"]'));
      for (let arrows = 0; !(await marked()); arrows++) {
        if (arrows > MOST_ARROWS) throw new Error(`The arrows don't come to ${one.toString()}`);
        await page.keyboard.press(onTable ? 'ArrowRight' : 'ArrowDown');
        // A menu moves its mark a moment after the key: who presses on before that goes past it.
        await page.evaluate(() => new Promise((moved) => setTimeout(moved)));
      }
      if (!onTable) await page.keyboard.press('Enter');
    },
    write: async (field, text) => {
      await reach(field);
      await page.keyboard.press('Control+a');
      await page.keyboard.type(text);
    },
  };
}

/** A finger: taps, and what is typed goes where it tapped. */
function touch(page: Page): Hands {
  return {
    page,
    press: (control) => control.tap(),
    choose: (one) => one.tap(),
    write: async (field, text) => {
      await field.tap();
      await field.fill(text);
    },
  };
}

/** Files of a vet's bill, a school's letter of two pages. */
async function papers(of: string): Promise<string[]> {
  const sheets = [
    'Cobblers Lane Vet Surgery\nInvoice\nDate 3 November 2026\nTotal 38.00',
    `Saltgate Primary School\nDear Mr Castellane,\nThe concert ${of} is on 10 December`,
    'Page 2\nPlease bring a lantern\nand something warm to wear',
  ];
  const folder = scratchFolder();
  const files: string[] = [];
  for (const [index, text] of sheets.entries()) {
    files.push(join(folder, `${of} ${index + 1}.jpg`));
    writeFileSync(files[index], await scanned(text));
  }
  return files;
}

/** The twelve things that a person does most, in their order. */
async function twelveSteps({ page, press, choose, write }: Hands, of: string): Promise<void> {
  /** On a phone the notes lie in a sheet below the page. */
  const pullUp = async () => {
    const sheetHead = page.getByRole('button', { name: 'Name, folder, and what was read' });
    if (await sheetHead.isVisible()) await press(sheetHead);
  };
  const button = (name: string | RegExp) => page.getByRole('button', { name });
  const station = (name: RegExp) => press(page.getByRole('navigation').getByRole('link', { name }));
  const sheet = (name: RegExp) => page.getByRole('option', { name });
  const counted = (text: string) => page.getByText(text, { exact: true }).waitFor();

  // 1 and 2: take files in, and lay them on the light table.
  const chooser = page.waitForEvent('filechooser');
  await press(button(/^Choose files/));
  await (await chooser).setFiles(await papers(of));
  await station(/^Sort/);
  await page.getByText('3 pages').first().waitFor();
  await press(page.getByRole('button', { name: 'Sort', exact: true }));
  // 3: all is one document; then it begins anew with page 2.
  await sheet(/^Page 3/).waitFor();
  await press(button('Cut the stack'));
  await choose(page.getByRole('menuitem', { name: /^Not at all/ }));
  await counted('1 document');
  await choose(sheet(/^Page 2/));
  await press(button(/^Cut before( c)?$/));
  await counted('2 documents');
  // 4: a page is turned, and turned back.
  await press(button(/^Turn/));
  await press(button(/^Undo/));
  // 5: one is dropped and brought back.
  await press(button(/^Drop/));
  await sheet(/^Page 2, dropped/).waitFor();
  await press(button(/^Undo/));
  await sheet(/^Page 2,(?! dropped)/).waitFor();
  // 6: on to Check.
  await press(button(/^To Check/));
  await page.getByRole('heading', { name: '1 of 2' }).waitFor();
  await pullUp();
  // 7: a fact is put right.
  const who = page.getByLabel('Who', { exact: true });
  await write(who, `Vet ${of}`);
  await page.keyboard.press('Enter');
  await until(async () => (await page.getByLabel('Name', { exact: true }).inputValue()).includes(`Vet ${of}`));
  // 8 and 9: a folder is made, the paper filed; the next one too.
  await write(page.getByLabel('Folder', { exact: true }), `Animals ${of}`);
  await choose(page.getByRole('option', { name: /^New folder/ }));
  await press(button(/^File it/));
  await page.getByRole('heading', { name: '1 of 1' }).waitFor();
  await pullUp();
  await until(async () => (await page.getByLabel('Name', { exact: true }).inputValue()).includes('Saltgate'));
  await write(page.getByLabel('Folder', { exact: true }), `School ${of}`);
  await choose(page.getByRole('option', { name: /^New folder/ }));
  await press(button(/^File it/));
  await page.getByRole('heading', { name: 'Nothing waits to be checked' }).waitFor();
  await until(
    () => existsSync(join(program.shelf, `School ${of}`)) && existsSync(join(program.shelf, `Animals ${of}`)),
  );
  // 10: a word finds the paper.
  await station(/^Shelf/);
  await press(button(/^Find/));
  await write(page.getByRole('searchbox'), `concert ${of}`);
  await page
    .getByText(/^\d+ hits?\b/)
    .first()
    .waitFor();
  await press(page.getByRole('button', { name: /Saltgate/ }));
  await page.locator('[data-hit=current]').first().waitFor();
  // 11: it gets another name.
  await press(button('More about this document'));
  await choose(page.getByRole('menuitem', { name: /Rename/ }));
  await write(page.getByLabel('Its name'), `Concert ${of}`);
  await press(page.getByRole('button', { name: 'Rename', exact: true }));
  await until(() => existsSync(join(program.shelf, `School ${of}/Concert ${of}.pdf`)));
  // 12: to the bin, and back.
  await press(button('More about this document'));
  await choose(page.getByRole('menuitem', { name: /To the bin/ }));
  await until(() => !existsSync(join(program.shelf, `School ${of}/Concert ${of}.pdf`)));
  await station(/^Shelf/);
  await press(button('Bin'));
  await press(button(/^Bring back to School/));
  await until(() => existsSync(join(program.shelf, `School ${of}/Concert ${of}.pdf`)));
}

it.each([
  ['keys', keyboard, { width: 1280, height: 800 }],
  ['fingers', touch, { width: 390, height: 844 }],
] as const)('the twelve things that are done most are done with %s alone', async (of, hands, viewport) => {
  const { page, context, errors } = await openWindow(browser, program.session, '/', {
    viewport,
    hasTouch: of === 'fingers',
  });
  await twelveSteps(hands(page), of);
  expect(errors).toEqual([]);
  await context.close();
  expect(await program.ask(endpoints.listWaiting, {})).toEqual([]);
});
