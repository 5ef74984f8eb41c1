import { Tally } from './tally';
import { jsonOf, type Ask, type Target } from './target';
import { Target as Server } from './target';

/** Pages of other sites, names that point here, methods and addresses that are none, a second server. */
export async function strangers(target: Target): Promise<Tally> {
  const tally = new Tally('strangers, and askers at fault');
  const id = await target.newProject('Mine');
  const own = `127.0.0.1:${target.port}`;
  const rename = JSON.stringify({ base: 0, changes: [{ id: 'strange01', kind: 'do', command: 'project.rename', args: { name: 'Theirs' } }] });
  const refuse = async (path: string, ask: Ask, statuses: number[], what: string): Promise<void> => {
    const answer = tally.count(await target.ask(path, ask), what);
    if (!statuses.includes(answer.status)) tally.hold(false, `${what}: ${answer.status}`);
  };
  const send = (headers: Record<string, string>): Ask => ({ method: 'POST', body: rename, headers: { 'content-length': String(rename.length), ...headers } });
  const changes = `/api/projects/${id}/changes`;
  for (const headers of [
    { 'content-type': 'text/plain' },
    { 'content-type': 'text/plain', origin: 'http://evil.example' },
    { 'content-type': 'application/json', origin: 'http://evil.example' },
    { 'content-type': 'application/json', origin: 'null' },
    { 'content-type': 'application/json', 'sec-fetch-site': 'cross-site' },
    { 'content-type': 'application/json', 'sec-fetch-site': 'same-site', origin: 'http://127.0.0.1:1' },
    { 'content-type': 'application/x-www-form-urlencoded' },
    { 'content-type': 'application/json', host: `evil.example:${target.port}` },
  ] as Record<string, string>[])
    await refuse(changes, send(headers), [403, 415], JSON.stringify(headers));
  for (const path of ['/', '/api/projects', `/api/projects/${id}`, '/icon.svg', '/_next/static/x.js'])
    await refuse(path, { headers: { host: 'evil.example' } }, [403], `${path} by another name`);
  for (const site of ['cross-site', 'same-site'])
    await refuse(`/api/projects/${id}/export/glb`, { headers: { 'sec-fetch-site': site } }, [403], `${site} export`);
  await refuse(`/api/projects/${id}`, { method: 'DELETE', headers: { origin: 'http://evil.example' } }, [403], 'deletion from elsewhere');
  for (const method of ['TRACE', 'PUT', 'OPTIONS']) await refuse('/api/projects', { method }, [405], method);
  for (const path of [
    '/api/projects/%00',
    '/api/projects/%ff',
    '/api/assets/%2e%2e%2f',
    '/api/projects/%',
    `/api/projects/${'x'.repeat(3000)}`,
    '/api/projects/__proto__',
    '/api/errands/none',
    '/api/errands/__proto__',
  ])
    await refuse(path, {}, [400, 404], path.slice(0, 40));
  for (const query of ['__proto__', 'constructor', '', '%00'])
    for (const kind of ['pdf', 'png'])
      await refuse(`/api/projects/heron-lock-cottage/export/${kind}?board=${query}`, {}, query === '%00' ? [404] : [404], `board ${query}`);
  await refuse('/api/projects/heron-lock-cottage/export/png?page=__proto__', {}, [404], 'page __proto__');
  for (const name of ['', '   ', '\u0000', 'a\u0007', '\ud800', '\u200b']) {
    const answer = tally.count(await target.json('/api/projects', { name, units: 'metric' }), `name ${JSON.stringify(name)}`);
    tally.hold(answer.status === 422, `a name of ${JSON.stringify(name)} is refused`);
  }
  const twice = { id: 'twice0001', kind: 'do', command: 'project.rename', args: { name: 'T' } };
  const doubled = tally.count(await target.json(changes, { base: 0, changes: [twice, twice] }), 'the same id twice');
  tally.hold(doubled.status === 422 && jsonOf<{ change: string }>(doubled)?.change === 'twice0001', 'the same id twice is refused and named');
  const culprit = tally.count(
    await target.json(changes, {
      base: 0,
      changes: [
        { ...twice, id: 'fine00001' },
        { id: 'culprit01', kind: 'do', command: 'wall.move', args: { wall: 'none', offset: 1 } },
        { id: 'notone001', command: 7 },
      ],
    }),
    'a culprit among others',
  );
  tally.hold(jsonOf<{ change: string }>(culprit)?.change === 'notone001', 'what is no change is named');
  const state = jsonOf<{ seq: number; project: { name: string } }>(await target.ask(`/api/projects/${id}`));
  tally.hold(state?.seq === 0 && state.project.name === 'Mine', 'nothing was changed');
  for (const path of ['/', '/api/projects', '/icon.svg', '/api/nothing']) {
    const { headers } = await target.ask(path);
    tally.hold(headers['x-content-type-options'] === 'nosniff', `${path} says nosniff`);
    if (path === '/api/projects') tally.hold(headers['cache-control'] === 'no-store', 'JSON is not stored');
  }
  const script = /src="(\/_next\/static\/chunks\/[^"]+\.js)"/.exec((await target.ask('/')).body.toString())?.[1];
  const still = await target.ask(script ?? '/none');
  tally.hold(still.status === 200 && still.headers['x-content-type-options'] === 'nosniff', 'static files say nosniff');
  tally.hold((await target.ask('/', { headers: { host: own } })).status === 200, 'its own page is served');

  const second = new Server(target.folder, target.port + 1);
  const started = await second.start();
  tally.hold(!started && /Another server is working with this data folder/.test(second.said), 'a second server says so and stops');
  await second.stop();
  return tally;
}
