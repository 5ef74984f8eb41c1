import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { expect, left, test } from './test';
import { runChange, type Change } from '../src/core/project/commands';
import { emptyProject, type Project } from '../src/core/project/schema';
import { only, Studio } from './studio';

test('two windows on one project end up equal', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const one = new Studio(await context.newPage());
  await left(one.page);
  await one.start('Shared house');
  await one.card('Room by corners').click();
  await one.press(0.15, 0.15);
  await one.moveTo(2, 1.5);
  await one.type('4000');
  await one.page.keyboard.press('Tab');
  await one.type('3000');
  await one.page.keyboard.press('Enter');
  await one.kept();
  const two = new Studio(await context.newPage());
  await left(two.page);
  await two.open(one.id);
  await expect(two.room('Room 1')).toBeVisible();

  // Both edit, the second without having heard of the first: its request is held back until the first is through.
  await two.page.route('**/changes', async (route) => {
    if (route.request().method() === 'POST') await new Promise((done) => setTimeout(done, 1500));
    await route.continue();
  });
  await two.page.getByRole('button', { name: 'Units: metric' }).click();
  await one.room('Room 1').click();
  await one.set('Room name', 'Study');
  await expect(two.room('Study')).toBeVisible();
  await expect(one.page.getByRole('button', { name: 'Units: imperial' })).toBeVisible();
  await two.page.unroute('**/changes');

  // An edit on what the other window deletes is named, not swallowed.
  await two.page.route('**/changes*', (route) =>
    route.request().method() === 'POST' ? new Promise((done) => setTimeout(done, 4000)).then(() => route.continue()) : route.abort(),
  );
  const wall = only((await one.project()).walls).id;
  await two.page.bringToFront();
  await two.press(2.15, 0);
  await two.set('Thickness', '250 mm');
  await one.page.request.post(`/api/projects/${one.id}/changes`, {
    data: {
      base: ((await (await one.page.request.get(`/api/projects/${one.id}`)).json()) as { seq: number }).seq,
      changes: [{ id: 'deleteall01', kind: 'do', command: 'delete', args: { ids: Object.keys((await one.project()).walls) } }],
    },
  });
  await expect(two.notice).toContainText('could not be kept', { timeout: 60_000 });
  await two.page.unroute('**/changes*');
  await expect.poll(async () => JSON.stringify(await one.project()) === JSON.stringify(await two.project())).toBe(true);
  expect((await two.project()).walls[wall]).toBeUndefined();
  await context.close();
});

test('what is done offline waits in the browser and is sent later', async ({ page }) => {
  const studio = new Studio(page);
  await studio.start('Offline house');
  await page.route('**/changes*', (route) => route.abort());
  await studio.card('Room by corners').click();
  await studio.press(0.15, 0.15);
  await studio.press(3, 3);
  await expect(page.getByTestId('kept')).toContainText('offline');
  await expect(studio.room('Room 1')).toBeVisible();
  // The window is closed and opened again while the server is still out of reach for edits.
  await page.reload();
  await studio.ready();
  await expect(studio.room('Room 1')).toBeVisible();
  await page.unroute('**/changes*');
  await expect.poll(async () => Object.keys((await studio.project()).walls).length, { timeout: 30_000 }).toBe(4);
});

test('killing the server in the middle of edits loses nothing that was acknowledged', async () => {
  test.setTimeout(300_000);
  const folder = await mkdtemp(path.join(os.tmpdir(), 'enstegon-kill-'));
  const port = 3219;
  const base = `http://127.0.0.1:${port}`;
  let server: ChildProcess;
  const start = async (): Promise<void> => {
    server = spawn('node', ['--import', 'tsx', 'src/server/main.ts'], {
      env: { ...process.env, ENSTEGON_DATA: folder, PORT: String(port), NODE_ENV: 'production' },
      stdio: 'ignore',
    });
    for (let i = 0; i < 120; i++) {
      if (
        await fetch(`${base}/api/projects`).then(
          (r) => r.ok,
          () => false,
        )
      )
        return;
      await new Promise((done) => setTimeout(done, 250));
    }
    throw new Error('The server did not start.');
  };
  const kill = (): Promise<void> =>
    new Promise((done) => {
      server.once('exit', () => done());
      server.kill('SIGKILL');
    });
  try {
    await start();
    const { id } = (await (
      await fetch(`${base}/api/projects`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ name: 'Kill', units: 'metric' }),
      })
    ).json()) as { id: string };
    let acknowledged: Project = { ...emptyProject(id, 'Kill') };
    let seq = 0;
    for (let round = 0; round < 3; round++) {
      // Edits follow one another without a pause; the kill falls into one of them.
      const doom = setTimeout(() => server.kill('SIGKILL'), 400 + round * 130);
      const gone = new Promise<void>((done) => server.once('exit', () => done()));
      let sent: Change | null = null;
      for (let n = 0; ; n++) {
        const x = seq * 1.5;
        sent = {
          id: `kill${round}x${String(n).padStart(5, '0')}`,
          kind: 'do',
          command: 'wall.draw',
          args: {
            level: 'ground',
            points: [
              { x, y: 0 },
              { x: x + 1, y: 0 },
              { x: x + 1, y: 1 },
              { x, y: 1 },
            ],
            closed: true,
            thickness: 0.1,
          },
        };
        const answer = await fetch(`${base}/api/projects/${id}/changes`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ base: seq, changes: [sent] }),
        })
          .then((r) => r.json() as Promise<{ ok: boolean; seq: number }>)
          .catch(() => null);
        if (!answer) break;
        expect(answer).toEqual({ ok: true, seq: seq + 1 });
        acknowledged = runChange(acknowledged, sent).project;
        seq++;
      }
      clearTimeout(doom);
      await gone;
      await start();
      const found = (await (await fetch(`${base}/api/projects/${id}`)).json()) as { seq: number; project: Project };
      // The edit under way may have got through unacknowledged; everything before it must be there, unharmed.
      expect([seq, seq + 1]).toContain(found.seq);
      if (found.seq === seq + 1) {
        acknowledged = runChange(acknowledged, sent!).project;
        seq++;
      }
      expect(found.project).toEqual(acknowledged);
    }
    expect(seq).toBeGreaterThan(3);
  } finally {
    await kill().catch(() => undefined);
    await rm(folder, { recursive: true, force: true });
  }
});
