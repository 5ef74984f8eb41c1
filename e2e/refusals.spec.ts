import { expect, test, type Locator } from './test';
import { Studio } from './studio';

test('bad input gets one clear sentence and changes nothing', async ({ page, request }) => {
  const studio = new Studio(page);

  await test.step('a file that is no project', async () => {
    await page.goto('/');
    const before = ((await (await request.get('/api/projects')).json()) as unknown[]).length;
    for (const [name, content, sentence] of [
      ['notes.enstegon', 'these are notes', /it is not a project file/],
      ['empty.enstegon', '', /not opened/],
    ] as const) {
      await page.getByTestId('import').setInputFiles({ name, mimeType: 'application/zip', buffer: Buffer.from(content) });
      await expect(page.getByRole('status').first()).toContainText(sentence);
    }
    expect(((await (await request.get('/api/projects')).json()) as unknown[]).length).toBe(before);
  });

  await test.step('an upload of the wrong kind, a body that is too large or not JSON', async () => {
    const wrong = await request.post('/api/assets', { data: Buffer.from('<svg/>') });
    expect(wrong.status()).toBe(415);
    expect(((await wrong.json()) as { message: string }).message).toMatch(/only PNG, JPEG, WebP, AVIF, TIFF, Radiance HDR and OpenEXR/);
    const large = await request.post('/api/projects', { data: { name: 'x'.repeat(70_000), units: 'metric' } });
    expect(large.status()).toBe(413);
    const broken = await request.post('/api/projects', { data: Buffer.from('{'), headers: { 'content-type': 'application/json' } });
    expect(broken.status()).toBe(422);
    expect((await request.get('/api/projects/none')).status()).toBe(404);
    expect((await request.get('/api/assets/..%2F..%2Fpackage.json')).status()).toBe(404);
  });

  await test.step('an impossible length', async () => {
    await studio.start('Refusals');
    await studio.card('Walls in a chain').click();
    await studio.press(0, 0);
    await studio.moveTo(2, 0);
    for (const [typed, sentence] of [
      ['1e', /is not a length/],
      ['0', /“0” can’t be built; nothing was changed/],
      ['999 m', /“999 m” can’t be built/],
    ] as const) {
      await studio.type(typed);
      await page.keyboard.press('Enter');
      await expect(studio.notice).toContainText(sentence);
      await studio.page.getByLabel('length on the inside face').fill('');
    }
    // Nor is a press taken for what can’t be read.
    await studio.type('abc');
    await studio.press(2, 0);
    await expect(studio.notice).toContainText('“abc” is not a length');
    await studio.page.getByLabel('length on the inside face').fill('');
    expect((await studio.project()).walls).toEqual({});
    await studio.type('2400');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await expect.poll(async () => Object.keys((await studio.project()).walls).length).toBe(1);
  });

  await test.step('an impossible size of a room that stands: one sentence, nothing lost', async () => {
    await studio.card('Room by corners').click();
    await studio.press(0, 3);
    await studio.moveTo(2, 5);
    await studio.type('4000');
    await page.keyboard.press('Tab');
    await studio.type('3000');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
    await studio.room('Room 1').click();
    const before = await studio.project();
    const width = page.getByLabel('Inside width', { exact: true });
    for (const [typed, sentence] of [
      ['0', /“0” can’t be built; nothing was changed/],
      ['-500', /“-500” can’t be built/],
      ['1e9', /is not a length/],
      ['1000000000', /can’t be built; nothing was changed. Type a length between 10 mm and 500 m/],
      ['abc', /“abc” is not a length/],
    ] as const) {
      await width.fill(typed);
      await width.press('Enter');
      await expect(studio.notice).toContainText(sentence);
      await expect(width).toHaveValue('4000');
      const after = await studio.project();
      expect([after.walls, after.corners, after.rooms]).toEqual([before.walls, before.corners, before.rooms]);
    }
    // What is typed shows what it would move, and Escape takes it back.
    const shown = async (): Promise<string | null> =>
      page
        .getByTestId('plan')
        .locator(`[data-entity="${Object.keys(before.rooms)[0]}"]`)
        .first()
        .getAttribute('d');
    const plain = await shown();
    await width.fill('4600');
    await expect.poll(shown).not.toBe(plain);
    await width.press('Escape');
    await expect.poll(shown).toBe(plain);
    await page.getByRole('button', { name: 'Whole level' }).click();
    await studio.tab('Walls');
  });

  await test.step('an opening that does not fit', async () => {
    await studio.tab('Doors and windows');
    await studio.card('Door').click();
    await studio.press(1.2, 0);
    await studio.set('Width', '4 m');
    await expect(studio.notice).toContainText('was not changed');
    await expect(studio.docket.getByLabel('Width', { exact: true })).toHaveValue('992');
    await studio.set('Height', 'tall');
    await expect(studio.notice).toContainText('“tall” is not a length');
    await expect(studio.docket.getByLabel('Height', { exact: true })).toHaveValue('2100');
  });
});

test('answers carry strict headers', async ({ request }) => {
  for (const path of ['/', '/api/projects']) {
    const headers = (await request.get(path)).headers();
    expect(headers['content-security-policy']).toMatch(path === '/' ? /script-src 'self' 'nonce-[^']+' 'strict-dynamic'/ : /default-src 'none'/);
    expect(headers['content-security-policy']).toMatch(/frame-ancestors 'none'/);
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['referrer-policy']).toBe('no-referrer');
    expect(headers['x-powered-by']).toBeUndefined();
  }
});

test('projects are renamed, duplicated, deleted and brought back', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('Card house');
  await page.goto('/');
  const card = page.getByRole('article', { name: 'Card house' });
  const more = (name: string): Promise<void> => page.getByRole('button', { name: `More for ${name}`, exact: true }).click();
  await more('Card house');
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByLabel('Project name').fill('Paper house');
  await page.getByLabel('Project name').press('Enter');
  await expect(page.getByRole('article', { name: 'Paper house', exact: true })).toBeVisible();
  await expect(card).toHaveCount(0);
  await more('Paper house');
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(page.getByRole('article', { name: 'Paper house, copy' })).toBeVisible();
  await more('Paper house, copy');
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(page.getByRole('article', { name: 'Paper house, copy' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('article', { name: 'Paper house, copy' })).toBeVisible();
  // The demo's card shows a real picture.
  const thumbnail = page.getByRole('article', { name: 'Heron Lock Cottage', exact: true }).locator('img');
  await expect.poll(() => thumbnail.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(560);
});

test('the list comes with its page, and tells the time of whoever reads it', async ({ browser, request, baseURL }) => {
  const cards = (await (await request.get('/api/projects')).json()) as { id: string; name: string; changedAt: string }[];
  const html = await (await request.get('/')).text();
  for (const { id } of cards) expect(html).toContain(`href="/project/${id}"`);
  for (const timezoneId of ['Asia/Tokyo', 'America/Lima']) {
    const context = await browser.newContext({ baseURL, timezoneId });
    const page = await context.newPage();
    const faults: string[] = [];
    page.on('pageerror', (error) => faults.push(error.message));
    page.on('console', (message) => message.type() === 'error' && faults.push(message.text()));
    await page.goto('/');
    const changed = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short', timeZone: timezoneId }).format(new Date(cards[0].changedAt));
    await expect(page.getByTestId('project-card').first()).toContainText(`changed ${changed}`);
    expect(faults).toEqual([]);
    await context.close();
  }
});

test('what is still coming shows that it is, on the list of projects and on the ledge', async ({ page }) => {
  let release = (): void => undefined;
  const held = new Promise<void>((done) => (release = done));
  await page.route('**/thumbnail?*', async (route) => {
    await held;
    await route.continue();
  });
  // The page counts as loaded only when its pictures are.
  await page.goto('/', { waitUntil: 'commit' });
  const card = page.getByRole('article', { name: 'Heron Lock Cottage', exact: true });
  await expect(card.getByTestId('coming')).toBeVisible();
  // A press that began before the picture came opens the project all the same.
  await card.scrollIntoViewIfNeeded();
  const box = (await card.boundingBox())!;
  await page.mouse.move(box.x + 100, box.y + 60);
  await page.mouse.down();
  release();
  await expect(card.getByTestId('coming')).toHaveCount(0);
  await page.mouse.up();
  await page.waitForURL(/\/project\//);
  // No card stays blank: in its mean colour at once, then as it is.
  const studio = new Studio(page);
  await studio.start('Coming house');
  for (const [stage, tab] of [
    ['Finishes', 'Brick'],
    ['Fit-out', 'Seating'],
  ] as const) {
    await studio.stage(stage);
    await studio.tab(tab);
    const ledge = page.getByTestId('ledge');
    await expect(ledge.getByRole('button').nth(3)).toBeVisible();
    await expect(ledge.getByTestId('coming')).toHaveCount(0);
  }
});

test('a room is drawn and furnished by keyboard alone', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('Keyboard house', 'Feet and inches');
  await studio.card('Room by corners').press('Enter');
  // The drawing has the focus, and what to do is read out.
  await expect(page.getByTestId('plan')).toBeFocused();
  await expect(page.getByTestId('tool-hint')).toContainText('Press two opposite corners');
  await page.keyboard.press('Enter');
  await studio.type(`11'4 1/2"`);
  await page.keyboard.press('Tab');
  await studio.type(`10'`);
  await page.keyboard.press('Enter');
  await expect(studio.room('Room 1')).toContainText('114 sq ft');
  // The tabs of the ledge are gone through with the arrow keys, from the last to the first.
  const tab = (name: string): Locator => page.getByTestId('ledge').getByRole('tab', { name, exact: true });
  await tab('Walls').focus();
  await page.keyboard.press('ArrowRight');
  await expect(tab('Doors and windows')).toHaveAttribute('aria-selected', 'true');
  await expect(studio.card('Door')).toBeVisible();
  await page.keyboard.press('End');
  await expect(tab('Underlay')).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('ArrowRight');
  await expect(tab('Walls')).toHaveAttribute('aria-selected', 'true');
  // The searchable list of everything one can do.
  await page.getByTestId('plan').focus();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+Space');
  const input = page.getByLabel('Find an action');
  const actions = page.getByRole('listbox', { name: 'Actions' }).getByRole('option');
  await expect(input).toBeFocused();
  await expect(actions).toHaveCount(60);
  for (let i = 0; i < 20; i++) await page.keyboard.press('ArrowDown');
  // What is in hand is told to those who cannot see it, and in view for those who can.
  expect(await input.getAttribute('aria-activedescendant')).toBe(await actions.nth(20).getAttribute('id'));
  await expect(actions.nth(20)).toBeInViewport({ ratio: 1 });
  await studio.type('no such thing');
  await expect(actions).toHaveCount(0);
  await page.keyboard.press('Escape');
  await expect(input).toHaveCount(0);
  await page.getByTestId('plan').focus();
  await page.keyboard.press('Control+Space');
  await studio.type('place wardrobe');
  await page.keyboard.press('Enter');
  await page.getByTestId('plan').focus();
  await page.keyboard.press('Enter');
  await expect(studio.docket).toContainText('Wardrobe');
  const before = Object.values((await studio.project()).pieces)[0].x;
  await page.getByTestId('plan').focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => Object.values((await studio.project()).pieces)[0].x - before).toBeCloseTo(0.0254, 9);
  await page.keyboard.press('Delete');
  await expect.poll(async () => Object.keys((await studio.project()).pieces).length).toBe(0);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => Object.keys((await studio.project()).pieces).length).toBe(1);
  // Finishes: a card is taken in hand, the swatches of the room take it.
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('button', { name: 'Finishes' }).press('Enter');
  await page.getByPlaceholder('Find a finish…').fill('sluice');
  await studio.card('Sluice white').press('Enter');
  await studio.room('Room 1').press('Enter');
  await studio.docket.getByRole('button', { name: /^walls/ }).press('Enter');
  await expect.poll(async () => Object.values((await studio.project()).rooms)[0].walls).toBe('paint.sluice-white');
  await page.getByPlaceholder('Find a finish…').fill('quarry red');
  await studio.card('Quarry tile, red').press('Enter');
  await studio.docket.getByRole('button', { name: /^floor/ }).press('Enter');
  await expect.poll(async () => Object.values((await studio.project()).rooms)[0].floor).toBe('tile.quarry-red');
  // All of it is there again when the page is opened anew.
  await expect(page.getByText(/^kept/)).toBeVisible();
  await page.reload();
  await studio.room('Room 1').press('Enter');
  await expect.poll(async () => Object.values((await studio.project()).rooms)[0]).toMatchObject({ walls: 'paint.sluice-white', floor: 'tile.quarry-red' });
});
