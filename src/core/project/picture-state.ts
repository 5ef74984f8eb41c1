import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { takenIn } from './choices';
import { orderedJson } from './ordered-json';
import type { Picture, Project } from './schema';

/** What no picture shows: names, lists, prices, presentations, what is drawn along. */
const UNSEEN: ReadonlySet<string> = new Set<keyof Project>([
  'version',
  'id',
  'name',
  'units',
  'scheme',
  'schemes',
  'construction',
  'dislikes',
  'money',
  'contents',
  'guides',
  'viewpoints',
  'pictures',
  'boards',
]);

/** Tables that came later: a project without such things has the digest it had before there were any. */
const LATER: ReadonlySet<string> = new Set<keyof Project>(['runs', 'cabinets']);

const known = new WeakMap<Project, Map<string, string>>();

/**
 * A digest of all that pictures of a project can show, with one of its schemes and in the light of one moment (its own unless
 * told). A picture whose project has another one since is old.
 */
export function pictureState(project: Project, scheme: string = project.scheme, moment: string = project.site.moment): string {
  const key = `${scheme} ${moment}`;
  let own = known.get(project);
  if (!own) known.set(project, (own = new Map()));
  const before = own.get(key);
  if (before) return before;
  const whole = takenIn(project, scheme, moment);
  const seen = Object.entries(whole).filter(([name, value]) => !UNSEEN.has(name) && !(LATER.has(name) && Object.keys(value as object).length === 0));
  const levels = Object.values(whole.levels).map(({ underlay: _, name: __, ...level }) => level);
  // A piece that is as its maker begins has the digest it had before there were traits.
  const pieces = Object.fromEntries(
    Object.entries(whole.pieces).map(([id, { traits, ...piece }]) => [id, Object.keys(traits).length ? { ...piece, traits } : piece]),
  );
  const digest = bytesToHex(
    sha256(
      utf8ToBytes(orderedJson({ ...Object.fromEntries(seen), pieces, levels, site: { ...whole.site, place: '' }, hidden: [...whole.contents.hidden].sort() })),
    ),
  );
  own.set(key, digest);
  return digest;
}

/** Whether what a picture shows has changed since it was made; false where that is not known. */
export function isOld(picture: Pick<Picture, 'state' | 'scheme' | 'moment'>, project: Project): boolean {
  const { state, scheme, moment } = picture;
  if (state === null || (scheme !== null && !Object.hasOwn(project.schemes, scheme))) return false;
  return pictureState(project, scheme ?? undefined, moment ?? undefined) !== state;
}
