import { expect, test, type Locator, type Page } from './test';
import { Studio } from './studio';

/** Goes on with the tab key until something has the focus. */
async function tabTo(page: Page, to: Locator, most = 120): Promise<void> {
  for (let i = 0; i < most; i++) {
    if (await to.evaluate((el) => el === document.activeElement)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`not reached by ${most} tabs: ${String(to)}`);
}

const focused = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const el = document.activeElement!;
    return el.getAttribute('aria-label') ?? el.textContent ?? el.tagName;
  });

test('a wall is finished by the keyboard alone', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('By keys');
  await studio.card('Room by corners').click();
  await studio.press(0.15, 0.15);
  await studio.press(4.15, 3.15);
  await page.keyboard.press('Escape');
  await page.mouse.move(1270, 790);

  await test.step('the finish is found along the ledge', async () => {
    await tabTo(page, page.getByRole('navigation', { name: 'Stages' }).getByRole('button', { name: 'Finishes' }));
    await page.keyboard.press('Enter');
    await tabTo(page, page.getByRole('tab', { name: 'Paint', exact: true }));
    await page.keyboard.press('ArrowRight');
    await expect(page.getByRole('tab', { name: 'Plaster', exact: true })).toHaveAttribute('aria-selected', 'true');
    await page.keyboard.press('ArrowLeft');
    const cards = page.getByRole('group', { name: 'Cards' }).getByRole('button');
    await tabTo(page, cards.first());
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowLeft');
    await expect(cards.nth(1)).toBeFocused();
    // At a second look it is seen large, with its supplier.
    await expect(page.getByTestId('large')).toContainText('Chalk ledge');
    await expect(page.getByTestId('large')).toContainText('LRV');
    await page.keyboard.press('Enter');
    await expect(studio.docket).toContainText('Chalk ledge');
  });

  await test.step('it is shown on a wall of the contents, put there, and taken back', async () => {
    await tabTo(page, page.getByRole('button', { name: 'Contents', exact: true }));
    await page.keyboard.press('Enter');
    const contents = page.getByRole('complementary', { name: 'Contents of the project' });
    await expect(contents.getByLabel('Find a thing')).toBeFocused();
    await expect(contents).toContainText('Chalk ledge: press a face to put it there.');
    await page.keyboard.type('north wall');
    await page.keyboard.press('ArrowDown');
    const wall = contents.getByRole('button', { name: 'north wall', exact: true });
    for (let i = 0; i < 5 && !(await wall.evaluate((el) => el === document.activeElement)); i++) await page.keyboard.press('ArrowDown');
    await expect(wall).toBeFocused();
    await expect(studio.line).toContainText('north wall');
    const faces = async (): Promise<string[]> => Object.values(Object.values((await studio.project()).rooms)[0].faces);
    expect(await faces()).toEqual([]);
    await page.keyboard.press('Enter');
    expect(await faces()).toEqual(['paint.chalk-ledge']);
    await expect(wall).toHaveAttribute('aria-pressed', 'true');
    await page.keyboard.press('Control+z');
    expect(await faces()).toEqual([]);
    await page.keyboard.press('Control+Shift+z');
    expect(await faces()).toEqual(['paint.chalk-ledge']);
    // The first Escape puts the finish down, the second leaves the contents, to where one came from.
    await page.keyboard.press('Escape');
    await expect(contents).toBeVisible();
    await page.keyboard.press('Enter');
    await expect(studio.docket).toContainText('North wall');
    await page.keyboard.press('Escape');
    await expect(contents).toHaveCount(0);
    await expect(page.getByRole('button', { name: 'Contents', exact: true })).toBeFocused();
  });

  await test.step('a sheet that opens takes the focus and gives it back', async () => {
    const schemes = page.getByRole('button', { name: 'Schemes', exact: true });
    await tabTo(page, schemes);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('dialog', { name: 'Schemes' })).toBeFocused();
    await page.keyboard.press('Escape');
    await expect(schemes).toBeFocused();
  });

  await test.step('whatever the tab key reaches shows that it has the focus, and has a name', async () => {
    const without: string[] = [];
    for (let i = 0; i < 70; i++) {
      await page.keyboard.press('Tab');
      const shown = await page.evaluate(() => {
        const el = document.activeElement as HTMLElement;
        if (el === document.body) return true;
        // A ring of its own or on what it is the heart of; a field has its line or its caret.
        const ring = (e: Element): boolean => {
          const s = getComputedStyle(e);
          return (s.outlineStyle !== 'none' && parseFloat(s.outlineWidth) > 0) || s.boxShadow !== 'none' || e.className.toString().includes('focusVisible');
        };
        return ring(el) || (el.parentElement !== null && ring(el.parentElement)) || el.matches('input, textarea');
      });
      if (!shown) without.push(await focused(page));
      expect((await focused(page)).trim()).not.toBe('');
    }
    expect(without).toEqual([]);
  });
});

test('a docket shows what is changed most and its finishes; the rest is folded, and stays as it was left', async ({ page }) => {
  // As somebody who has not unfolded anything yet.
  await page.addInitScript(() => {
    if (localStorage.getItem('enstegon.once') === null) localStorage.setItem('enstegon.groups', '');
    localStorage.setItem('enstegon.once', 'yes');
  });
  const studio = new Studio(page);
  await page.goto('/');
  await page.getByRole('link', { name: /Open Heron Lock Cottage/ }).click();
  await studio.ready();
  await page.getByRole('button', { name: 'Contents', exact: true }).click();
  await page.getByLabel('Find a thing').fill('deck door');
  await page.getByRole('button', { name: /^Deck door/ }).click();
  const { docket } = studio;
  await expect(docket.getByLabel('Width', { exact: true })).toBeVisible();
  const names = await docket.evaluate((el) =>
    [...el.querySelectorAll('input, [role="combobox"], button[aria-expanded]')].map((e) => e.getAttribute('aria-label') ?? e.textContent ?? ''),
  );
  expect(names.length).toBeLessThan(18);
  // Its finishes come before what is folded.
  const order = await docket.evaluate((el) => {
    const swatch = el.querySelector('[aria-label*="leaf"], [title*="leaf"]');
    const group = el.querySelector('button[aria-expanded]');
    return swatch && group ? swatch.compareDocumentPosition(group) & Node.DOCUMENT_POSITION_FOLLOWING : 0;
  });
  expect(order).toBe(4);
  await expect(docket.getByLabel('Architrave', { exact: true })).toHaveCount(0);
  const round = docket.getByRole('button', { name: 'Round it' });
  await tabTo(page, round);
  await page.keyboard.press('Enter');
  await expect(docket.getByLabel('Architrave', { exact: true })).toBeVisible();
  await page.reload();
  await studio.ready();
  await page.getByRole('button', { name: 'Contents', exact: true }).click();
  await page.getByLabel('Find a thing').fill('deck door');
  await page.getByRole('button', { name: /^Deck door/ }).click();
  await expect(docket.getByLabel('Architrave', { exact: true })).toBeVisible();
  await expect(docket.getByRole('button', { name: 'Where it stands' })).toHaveAttribute('aria-expanded', 'false');
});
