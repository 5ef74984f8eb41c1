import { expect, type APIRequestContext, type Locator, type Page } from '@playwright/test';
import type { Project } from '../src/core/project/schema';

/** The studio as a person at the screen uses it. */
export class Studio {
  constructor(readonly page: Page) {}

  get id(): string {
    return new URL(this.page.url()).pathname.split('/').pop()!;
  }

  /** Brings up the model beside the drawing, which stands alone at first, and waits until it is drawn. */
  async withModel(): Promise<void> {
    await this.page.getByTitle('Show the model beside it').click();
    await this.rested();
  }

  /** Has drawing and model side by side from the start: what is pressed by its place in the plan is where it was when it was fitted. */
  async sideBySide(): Promise<void> {
    await this.page.addInitScript(() => localStorage.setItem('enstegon.layout', 'both'));
  }

  /** Lets the drawing fill the table again. */
  drawingOnly(): Promise<void> {
    return this.page.getByTitle('Let the plan fill the table').click();
  }

  /** Opens a project and waits until it can be worked on. */
  async open(id: string): Promise<void> {
    await this.page.goto(`/project/${id}`);
    await this.ready();
  }

  async ready(): Promise<void> {
    await expect(this.page.locator('main[aria-busy="false"]')).toBeVisible();
  }

  /** Starts a project from the page of projects. */
  async start(name: string, units: 'Millimetres' | 'Feet and inches' = 'Millimetres'): Promise<void> {
    await this.page.goto('/');
    await this.page.getByRole('button', { name: 'New project' }).click();
    await this.page.getByLabel('Name of the project').fill(name);
    await this.page.getByRole('radio', { name: units }).click();
    await this.page.getByRole('button', { name: 'Start' }).click();
    await this.page.waitForURL(/\/project\//);
    await this.ready();
  }

  /** Draws a first room by two corners, of an inside size that is typed. */
  async firstRoom(wide: string, deep: string): Promise<void> {
    await this.card('Room by corners').click();
    await this.press(0.15, 0.15);
    await this.moveTo(5, 4);
    await this.type(wide);
    await this.page.keyboard.press('Tab');
    await this.type(deep);
    await this.page.keyboard.press('Enter');
    await this.page.keyboard.press('Escape');
  }

  /** Waits until the model is drawn as it is and nothing of it is still to come. */
  async rested(): Promise<void> {
    const canvas = this.page.getByTestId('model').locator('canvas');
    let calm = 0;
    await expect
      .poll(async () => (calm = (await canvas.getAttribute('data-rested')) === 'true' ? calm + 1 : 0), { intervals: [120], timeout: 60_000 })
      .toBeGreaterThan(3);
  }

  stage(name: string): Promise<void> {
    return this.page.getByRole('navigation', { name: 'Stages' }).getByRole('button', { name }).click();
  }

  card(name: string): Locator {
    return this.page.getByTestId('ledge').getByRole('button', { name: new RegExp(`^${name}`) });
  }

  tab(name: string): Promise<void> {
    return this.page.getByTestId('ledge').getByRole('tab', { name, exact: true }).click();
  }

  room(name: string): Locator {
    return this.page.getByRole('navigation', { name: 'Level and rooms' }).getByRole('button', { name: new RegExp(`^${name}`) });
  }

  get docket(): Locator {
    return this.page.getByTestId('docket');
  }

  get line(): Locator {
    return this.page.getByTestId('measuring-line');
  }

  get notice(): Locator {
    return this.page.getByTestId('notice');
  }

  /** Where a point of the model (metres) shows in the plan, in pixels of the window. */
  async at(x: number, y: number): Promise<{ x: number; y: number }> {
    const plan = this.page.getByTestId('plan');
    const [k, vx, vy] = (await plan.getAttribute('data-view'))!.split(' ').map(Number);
    const box = (await plan.boundingBox())!;
    return { x: box.x + vx + x * k, y: box.y + vy - y * k };
  }

  async moveTo(x: number, y: number): Promise<void> {
    const p = await this.at(x, y);
    await this.page.mouse.move(p.x - 2, p.y - 1);
    await this.page.mouse.move(p.x, p.y);
  }

  async press(x: number, y: number): Promise<void> {
    await this.moveTo(x, y);
    await this.page.mouse.down();
    await this.page.mouse.up();
  }

  async drag(from: [number, number], to: [number, number]): Promise<void> {
    await this.moveTo(...from);
    await this.page.mouse.down();
    const p = await this.at(...to);
    await this.page.mouse.move(p.x, p.y, { steps: 8 });
    await this.page.mouse.up();
  }

  /** Drags a card of the ledge to a point of the window. */
  async dragCard(card: Locator, to: { x: number; y: number }): Promise<void> {
    await card.scrollIntoViewIfNeeded();
    const box = (await card.boundingBox())!;
    await this.page.mouse.move(box.x + box.width / 2, box.y + 30);
    await this.page.mouse.down();
    await this.page.mouse.move(box.x + box.width / 2 + 10, box.y + 10, { steps: 3 });
    await this.page.mouse.move(to.x, to.y, { steps: 8 });
    await this.page.mouse.up();
  }

  type(text: string): Promise<void> {
    return this.page.keyboard.type(text, { delay: 15 });
  }

  /** Unfolds rows of the docket that are folded under a heading. */
  async unfold(title: string): Promise<void> {
    const heading = this.docket.getByRole('button', { name: title, exact: true });
    if ((await heading.getAttribute('aria-expanded')) === 'false') await heading.click();
  }

  /** Changes a value on the docket. */
  async set(label: string, value: string): Promise<void> {
    const field = this.docket.getByLabel(label, { exact: true });
    await field.fill(value);
    await field.press('Enter');
  }

  /** Chooses among a few. On a slow machine a press may count as a long one, which ends the list again: then once more. */
  async choose(label: string | RegExp, option: string | RegExp, within: Locator | Page = this.page): Promise<void> {
    const list = this.page.getByRole('listbox');
    await expect(async () => {
      if (!(await list.isVisible()))
        await within.getByLabel(label, { exact: true }).first().locator('xpath=..').getByRole('combobox').first().click({ timeout: 15_000 });
      await this.page.getByRole('option', { name: option }).first().click({ timeout: 8000 });
      await expect(list).toHaveCount(0, { timeout: 8000 });
    }).toPass({ timeout: 90_000 });
  }

  /** Waits until everything has been acknowledged by the server. */
  async kept(): Promise<void> {
    await expect(this.page.getByTestId('kept')).toHaveText(/^kept/);
  }

  /** The project as the server has it. */
  async project(request: APIRequestContext = this.page.request): Promise<Project> {
    await this.kept();
    return ((await (await request.get(`/api/projects/${this.id}`)).json()) as { project: Project }).project;
  }

  /** Finishes a download and returns its bytes. */
  async download(press: () => Promise<void>): Promise<{ name: string; bytes: Buffer }> {
    // A board with its pictures takes a busy machine more than half a minute.
    const [file] = await Promise.all([this.page.waitForEvent('download', { timeout: 120_000 }), press()]);
    const chunks: Buffer[] = [];
    for await (const chunk of await file.createReadStream()) chunks.push(chunk as Buffer);
    return { name: file.suggestedFilename(), bytes: Buffer.concat(chunks) };
  }
}

export const only = <T>(record: Record<string, T>): T => Object.values(record)[0];
