import { readFile, writeFile } from 'node:fs/promises';
import { Command, InvalidArgumentError } from 'commander';
import { findings } from '@/core/checks/findings';
import { Deriver, deriveModel } from '@/core/model/derive';
import { writeGlb } from '@/core/formats/glb/glb';
import { projectJsonSchema, readProjectJson, writeProjectFile, type Asset } from '@/core/formats/project-file/project-file';
import { DomainError } from '@/core/project/errors';
import type { Project } from '@/core/project/schema';
import { Moment } from '@/core/project/schema';
import { usualWhite } from '@/core/light/white';
import { PRINT_LIMITS } from '@/core/render/large';
import { PICTURE_TEXTURE, pictureScene } from '@/core/render/picture';
import { fetchImages } from '@/core/finishes/store';
import { readLandscape } from '@/core/formats/landscape';
import { fetchSurroundings } from '@/core/light/surroundings';
import { takenIn } from '@/core/project/choices';
import { prepareScene } from '@/core/render/prepared';
import { shotFrom } from '@/core/render/shot';
import { scheduleLists } from '@/core/schedules/lists';
import { toCsv } from '@/core/schedules/rooms';
import { finishList, stockList } from '@/core/schedules/shipped';
import { landscapeFile } from '@/server/jobs/landscapes';
import { encodePng, pixelsOf } from '@/server/jobs/pictures';
import { readProjectFile } from '@/server/jobs/project-file';
import { renderTo } from './render';

const listNames = Object.keys(scheduleLists());

/** Reads a project file, or the bare JSON of a project. */
async function open(file: string): Promise<{ project: Project; assets: Asset[] }> {
  let bytes: Buffer;
  try {
    bytes = await readFile(file);
  } catch {
    throw new DomainError('file.read', `The file ${file} can’t be read.`);
  }
  const read = bytes[0] === 0x7b ? { project: readProjectJson(bytes.toString('utf8')), assets: [] } : await readProjectFile(bytes);
  const bytesOf = (hash: string): Uint8Array => {
    const asset = read.assets.find((a) => a.hash === hash);
    if (!asset) throw new DomainError('file.pictures', `The file ${file} names pictures that are not in it; a project is packed with them by Hand over.`);
    return asset.bytes;
  };
  const { site, finishes } = read.project;
  // Finishes made from pictures, and surroundings, need these to be drawn; bare JSON has none of its own.
  if (bytes[0] !== 0x7b) await fetchImages(Object.values(finishes), (hash) => pixelsOf(Buffer.from(bytesOf(hash))));
  if (bytes[0] !== 0x7b || site.surroundings?.picture.kind === 'shipped')
    await fetchSurroundings(site, async (picture) =>
      readLandscape(picture.kind === 'own' ? bytesOf(picture.image) : await readFile(landscapeFile(picture.landscape)), (own) => pixelsOf(Buffer.from(own))),
    );
  return read;
}

const out = (text: string): void => void process.stdout.write(text.endsWith('\n') ? text : `${text}\n`);

async function save(file: string, bytes: Uint8Array): Promise<void> {
  try {
    await writeFile(file, bytes);
  } catch {
    throw new DomainError('file.write', `The file ${file} can’t be written.`);
  }
}

const oneOf =
  (...values: string[]) =>
  (value: string): string => {
    if (!values.includes(value)) throw new InvalidArgumentError(`It is one of ${values.join(', ')}.`);
    return value;
  };

const positive = (value: string): number => {
  const n = Number(value);
  if (!Number.isInteger(n) || n < 1) throw new InvalidArgumentError('It is a whole number from 1.');
  return n;
};

/** Textures finer than the picture would be made for nothing. */
const texturePixels = (width: number): number => Math.min(PICTURE_TEXTURE, Math.max(128, 2 ** Math.ceil(Math.log2(width))));

const program = new Command('enstegon').description('Projects without a browser: check, report, export, render.').showHelpAfterError(false);
program.configureOutput({ outputError: (text, write) => write(text.replace(/^error: /, '')) });

program
  .command('demo')
  .description('write the demo project as a file')
  .requiredOption('--out <file>')
  .option('--bare', 'without its picture and board')
  .action(async ({ out: file, bare }: { out: string; bare?: boolean }) => {
    if (bare) {
      const { heronLockCottage } = await import('@/core/demo/heron-lock');
      return save(file, writeProjectFile(heronLockCottage(), []));
    }
    const { demoProject } = await import('@/server/seed');
    const { project, assets } = await demoProject();
    return save(file, writeProjectFile(project, assets));
  });

program
  .command('check')
  .description('say whether a file is valid, and what is worth a look in it')
  .argument('<file>')
  .option('--as <form>', 'text or json', oneOf('text', 'json'), 'text')
  .action(async (file: string, { as }: { as: string }) => {
    const { project } = await open(file);
    const list = findings(deriveModel(project));
    if (as === 'json') return out(JSON.stringify({ valid: true, name: project.name, findings: list }, null, 2));
    out([`${project.name}: valid, ${list.length} ${list.length === 1 ? 'finding' : 'findings'}`, ...list.map((f) => `- ${f.message}`)].join('\n'));
  });

program
  .command('report')
  .description('print a schedule')
  .argument('<file>')
  .requiredOption('--what <list>', listNames.join(', ').replace(/, ([^,]*)$/, ' or $1'), oneOf(...listNames))
  .option('--phase <phase>', 'before or after: the house as it stands, or as it will be', oneOf('before', 'after'), 'after')
  .option('--as <form>', 'json or csv', oneOf('json', 'csv'), 'json')
  .action(async (file: string, { what, as, phase }: { what: string; as: string; phase: 'before' | 'after' }) => {
    const model = new Deriver().derive((await open(file)).project, phase);
    const rows = scheduleLists()[what].rows(model);
    out(as === 'csv' ? toCsv(rows) : JSON.stringify(rows, null, 2));
  });

program
  .command('list')
  .description('print what ships: what can be placed, or the finishes')
  .requiredOption('--what <list>', 'stock or finishes', oneOf('stock', 'finishes'))
  .option('--as <form>', 'json or csv', oneOf('json', 'csv'), 'json')
  .action(({ what, as }: { what: 'stock' | 'finishes'; as: string }) => {
    const rows = what === 'stock' ? stockList() : finishList();
    out(as === 'csv' ? toCsv(rows) : JSON.stringify(rows, null, 2));
  });

program
  .command('export')
  .description('write the model in another format')
  .argument('<file>')
  .requiredOption('--to <format>', 'glb', oneOf('glb'))
  .requiredOption('--out <file>')
  .action(async (file: string, { out: target }: { out: string }) =>
    save(target, await writeGlb(deriveModel((await open(file)).project), { encode: encodePng })),
  );

program
  .command('render')
  .description('trace a picture from a viewpoint')
  .argument('<file>')
  .requiredOption('--view <name>', 'name or id of a viewpoint')
  .requiredOption('--out <png>')
  .option('--size <WxH>', 'pixels', '640x400')
  .option('--samples <n>', 'samples a pixel', positive, 32)
  .option('--exposure <ev>', 'EV at ISO 100; metered if left out')
  .option('--white <kelvin>', 'colour temperature shown as white; left out, that of daylight or lamps by the time of day')
  .option('--scheme <name>', 'name or id of a scheme; left out, the one in hand')
  .option('--moment <time>', 'local date and time of its daylight, as 2026-05-12T21:30; left out, that of the project')
  .option('--hdr <file>', 'keep the radiance too')
  .option(
    '--exr <file>',
    'keep it as OpenEXR, with passes: light groups, colour, normal, depth; of more than 2.3 million pixels those in a smaller file beside it',
  )
  .option('--round', 'all round: equirectangular, twice as wide as high')
  .option('--grain', 'leave the grain in')
  .action(
    async (
      file: string,
      o: {
        view: string;
        out: string;
        size: string;
        samples: number;
        exposure?: string;
        white?: string;
        scheme?: string;
        hdr?: string;
        exr?: string;
        moment?: string;
        round?: boolean;
        grain?: boolean;
      },
    ) => {
      const { project: whole } = await open(file);
      const scheme = o.scheme === undefined ? whole.scheme : Object.values(whole.schemes).find((s) => s.id === o.scheme || s.name === o.scheme)?.id;
      if (!scheme) throw new DomainError('scheme.missing', `There is no scheme ${o.scheme} in ${whole.name}.`);
      const moment = Moment.safeParse(o.moment ?? whole.site.moment);
      if (!moment.success) throw new DomainError('moment', `“${o.moment}” is not a date and time; write it as 2026-05-12T21:30.`);
      const project = takenIn(whole, scheme, moment.data);
      const view = Object.values(project.viewpoints).find((v) => v.id === o.view || v.name === o.view);
      if (!view)
        throw new DomainError(
          'view.missing',
          `There is no viewpoint “${o.view}”; the project has ${
            Object.values(project.viewpoints)
              .map((v) => v.name)
              .join(', ') || 'none'
          }.`,
        );
      const size = /^(\d+)x(\d+)$/.exec(o.size);
      const [width, height] = size ? [Number(size[1]), Number(size[2])] : [0, 0];
      if (!size || width < 16 || height < 16 || Math.max(width, height) > PRINT_LIMITS.side || width * height > PRINT_LIMITS.pixels)
        throw new DomainError(
          'size',
          `“${o.size}” is not a size; write it as 1280x720, 16 to ${PRINT_LIMITS.side} pixels a side and at most ${PRINT_LIMITS.pixels / 1e6} million in all.`,
        );
      const ev = o.exposure === undefined ? null : Number(o.exposure);
      if (ev !== null && !(ev > -20 && ev < 30)) throw new DomainError('exposure', `“${o.exposure}” is not an exposure; it is a number from −20 to 30.`);
      const white = o.white === undefined ? usualWhite(project.site) : Number(o.white);
      if (!(white >= 1500 && white <= 15000)) throw new DomainError('white', `“${o.white}” is not a colour temperature; it is a number from 1500 to 15000.`);
      const model = deriveModel(project);
      const shot = shotFrom(view, o.round);
      const scene = prepareScene(pictureScene(model, texturePixels(width), shot.looking));
      const wanted = { model, scene, shot, width, height, samples: o.samples, grain: o.grain ?? false, exposure: ev, white };
      await renderTo(wanted, { png: o.out, hdr: o.hdr, exr: o.exr }, save);
    },
  );

program
  .command('schema')
  .description('print the JSON Schema of project.json')
  .action(() => out(JSON.stringify(projectJsonSchema(), null, 2)));

program
  .command('seed')
  .description('put the demo on the list of projects, if it was never there')
  .action(async () => {
    const { app, closeApp } = await import('@/server/application');
    const { seedDemo } = await import('@/server/seed');
    const made = await seedDemo(await app()).finally(closeApp);
    process.stderr.write(made ? 'The demo project was put on the list.\n' : 'The demo project was there already; nothing was changed.\n');
  });

program
  .command('repair')
  .description('set a damaged database aside and rebuild what its log holds')
  .action(async () => {
    const { dataFolder } = await import('@/server/config');
    const { claimFolder } = await import('@/server/store/folder');
    const { repair } = await import('@/server/store/repair');
    const lock = await claimFolder(dataFolder());
    const { aside, projects, lost } = await repair(dataFolder()).finally(() => lock.release());
    const whole = projects.filter((p) => p.readable && p.seq === p.last).length;
    out(
      [
        `Rebuilt: ${projects.length} ${projects.length === 1 ? 'project' : 'projects'}, ${whole} of them whole; the damaged database lies in ${aside}.`,
        ...projects.filter((p) => p.readable && p.seq !== p.last).map((p) => `- ${p.name}: up to change ${p.seq} of ${p.last}`),
        ...projects.filter((p) => !p.readable).map((p) => `- ${p.name}: none of its states can be read`),
        ...Object.entries(lost).map(([table, n]) => `- ${table}: ${n === 1 ? 'one stretch of rows' : `${n} stretches of rows`} could not be read`),
      ].join('\n'),
    );
  });

program.parseAsync().catch((error: unknown) => {
  process.stderr.write(`${error instanceof DomainError ? error.message : `Something unexpected happened: ${String(error)}`}\n`);
  process.exitCode = 1;
});
