import { addressOf, applyFinish, PATCH_PARTS, roomOfTarget, Target } from '../targets';
import type { Draft } from 'immer';
import { current } from 'immer';
import { z } from 'zod';
import { isSimple } from '../../geometry/polygon';
import { closedSection } from '../../geometry/sweep';
import { choices, choicesOf, forgetLaying, giveOtherWalls, takeScheme } from '../choices';
import { DomainError } from '../errors';
import { cellFault } from '../laying-cell';
import {
  Address,
  Dislike,
  FaceLaying,
  Finish,
  Id,
  Moulding,
  Name,
  NO_STARTS,
  Patch,
  Profile,
  ProjectSchema,
  Scheme,
  type Laying,
  type Project,
} from '../schema';
import { applyKit, SchemeKit } from '../scheme-kit';
import { stateOf } from '../topology';
import { define, editable, need, refuseTaken } from './define';

const FinishId = z.string().min(1).max(80);

/** @throws DomainError `laying.cell` where a pattern of one's own leaves gaps or overlaps */
function checkLaying(laying: Laying | null, what: string): void {
  if (laying?.pattern !== 'own') return;
  const fault = laying.cell ? cellFault(laying.cell) : 'it has no units yet';
  if (fault) throw new DomainError('laying.cell', `${what} was not set: the pattern does not close, ${fault}.`);
}

function checkPatch(draft: Draft<Project>, patch: Patch): void {
  if (patch.on.room !== null) need(draft.rooms, patch.on.room, 'room');
  if (patch.on.kind === 'wall') need(draft.walls, patch.on.wall, 'wall');
  const { shape } = patch;
  const refuse = (why: string): never => {
    throw new DomainError('patch.shape', `${patch.name} was not set: ${why}`, [patch.id]);
  };
  if (shape.kind === 'polygon' && !isSimple(shape.points)) refuse('its outline crosses itself; move one of its corners.');
  if (shape.kind === 'band' && shape.to - shape.from < 0.005) refuse('its upper edge does not lie above its lower one.');
  if (shape.kind !== 'polygon' && (patch.on.kind === 'floor' || patch.on.kind === 'ceiling')) refuse('on a floor or a ceiling it is drawn corner by corner.');
  if (shape.kind !== 'band' && patch.on.kind === 'walls') refuse('on all walls of a room it runs as a band between two heights.');
}

/** Sets a patch, and how its parts are laid where that is said. */
function putPatch(draft: Draft<Project>, patch: Patch, layings: Readonly<Record<string, FaceLaying>>): void {
  checkPatch(draft, patch);
  draft.patches[patch.id] = patch;
  for (const part of PATCH_PARTS) {
    const address = addressOf({ kind: 'patch', patch: patch.id, part });
    if (layings[address]) draft.layings[address] = layings[address];
  }
}

/** Edits of what lies on faces: finishes of one's own, layings, patches, mouldings, schemes. */
export const dressingCommands = {
  'finish.put': define({
    title: 'Set finish of one’s own',
    args: Finish,
    apply(draft, finish) {
      checkLaying(finish.laying, finish.name);
      draft.finishes[finish.id] = finish;
    },
  }),
  'finish.replace': define({
    title: 'Replace finish',
    args: z.object({ from: FinishId, to: FinishId, room: Id.nullable().describe('null: in the whole project') }),
    apply(draft, { from, to, room }) {
      const project = current(draft) as Project;
      const targets = [...choices(project)].filter(({ target, finish }) => finish === from && (room === null || roomOfTarget(project, target) === room));
      const inStyles = room === null && Object.values(project.joinery).some((s) => Object.values(s.parts).includes(from));
      if (!targets.length && !inStyles)
        throw new DomainError(
          'finish.unused',
          `Nothing was replaced: that finish is not chosen anywhere ${room === null ? 'in the project' : 'in this room'}.`,
        );
      for (const { target } of targets) {
        if (target.kind === 'walls') giveOtherWalls(draft, target.room, to);
        else {
          forgetLaying(draft, target);
          applyFinish(draft, target, to);
        }
      }
      if (room === null)
        for (const { parts } of Object.values(draft.joinery)) for (const part of Object.keys(parts)) if (parts[part] === from) parts[part] = to;
    },
  }),
  'laying.put': define({
    title: 'Change laying',
    args: z.object({ addresses: z.array(Address).min(1).max(2000), laying: FaceLaying.nullable() }),
    apply(draft, { addresses, laying }) {
      if (laying) checkLaying(laying.laying, 'The laying');
      for (const address of addresses) {
        if (laying) draft.layings[address] = laying;
        else delete draft.layings[address];
      }
    },
  }),
  'patch.put': define({
    title: 'Set patch',
    args: z.object({
      patches: z.array(Patch).min(1).max(200),
      layings: z.record(Address, FaceLaying).default({}).describe('of the patches'),
    }),
    apply(draft, { patches, layings }) {
      for (const patch of patches) putPatch(draft, patch, layings);
    },
  }),
  'treatment.put': define({
    title: 'Copy treatment of a wall',
    args: z.object({
      to: z.object({ room: Id.nullable(), wall: Id, side: z.enum(['left', 'right']) }),
      finish: FinishId.nullable(),
      laying: FaceLaying.nullable(),
      patches: z.array(Patch).max(200),
      layings: z.record(Address, FaceLaying).default({}).describe('of the patches'),
    }),
    apply(draft, { to, finish, laying, patches, layings }) {
      for (const patch of Object.values(stateOf(draft.patches)))
        if (patch.on.kind === 'wall' && patch.on.room === to.room && patch.on.wall === to.wall && patch.on.side === to.side) {
          delete draft.patches[patch.id];
          for (const part of PATCH_PARTS) delete draft.layings[addressOf({ kind: 'patch', patch: patch.id, part })];
        }
      const target: Target = { kind: 'wall', ...to };
      applyFinish(draft, target, finish);
      const address = addressOf(target);
      if (laying) draft.layings[address] = laying;
      else delete draft.layings[address];
      for (const patch of patches) putPatch(draft, patch, layings);
    },
  }),
  'moulding.put': define({
    title: 'Set moulding',
    args: z.object({ mouldings: z.array(Moulding).min(1).max(200) }),
    apply(draft, { mouldings }) {
      for (const moulding of mouldings) {
        need(draft.rooms, moulding.room, 'room');
        draft.mouldings[moulding.id] = moulding;
      }
    },
  }),
  'profile.put': define({
    title: 'Set section',
    args: Profile,
    apply(draft, profile) {
      const high = Math.max(...profile.points.map((p) => p.y));
      // As it is swept.
      const ring = closedSection(profile.points);
      if (high < 0.003 || ring.length < 3 || !isSimple(ring))
        throw new DomainError(
          'profile.crossed',
          `${profile.name} was not set: its outline crosses itself or has no height; draw it from the lower back corner up.`,
          [profile.id],
        );
      draft.profiles[profile.id] = profile;
    },
  }),
  'scheme.add': define({
    title: 'Start a scheme',
    args: z.object({ id: Id, name: Name, from: Id.nullable().describe('copied from; null: with nothing chosen') }),
    apply(draft, { id, name, from }) {
      refuseTaken(draft.schemes, id);
      const project = current(draft) as Project;
      const source = from === null ? null : need(project.schemes, from, 'scheme');
      const order = Math.max(...Object.values(project.schemes).map((s) => s.order)) + 1;
      draft.schemes[id] = {
        id,
        name,
        order,
        starts: source?.starts ?? NO_STARTS,
        style: source?.style ?? null,
        choices: source ? (source.choices ?? choicesOf(project)) : { finishes: {}, layings: {}, patches: {}, mouldings: {}, joinery: {} },
      };
    },
  }),
  'scheme.from-kit': define({
    title: 'Take a scheme over',
    args: z.object({ id: Id, kit: SchemeKit }),
    apply(draft, { id, kit }, { newId }) {
      refuseTaken(draft.schemes, id);
      applyKit(draft, id, kit, newId);
    },
  }),
  'scheme.choose': define({
    title: 'Take scheme in hand',
    args: z.object({ id: Id }),
    apply(draft, { id }) {
      need(draft.schemes, id, 'scheme');
      takeScheme(draft, id);
    },
  }),
  'scheme.set': define({
    title: 'Change scheme',
    args: z.object({ id: Id, set: editable(Scheme.pick({ name: true, order: true, starts: true, style: true }), []) }),
    apply: (draft, { id, set }) => void Object.assign(need(draft.schemes, id, 'scheme'), set),
  }),
  'scheme.delete': define({
    title: 'Delete scheme',
    args: z.object({ id: Id }),
    apply(draft, { id }) {
      need(draft.schemes, id, 'scheme');
      if (draft.scheme === id)
        throw new DomainError('scheme.in-hand', 'The scheme was not deleted: it is the one in hand; take another one in hand first.', [id]);
      delete draft.schemes[id];
    },
  }),
  'dislikes.set': define({
    title: 'Note what the client does not like',
    args: z.object({ dislikes: z.array(Dislike).max(12) }),
    apply: (draft, { dislikes }) => void (draft.dislikes = dislikes),
  }),
  'money.set': define({
    title: 'Change money',
    args: z.object({ money: ProjectSchema.shape.money }),
    apply: (draft, { money }) => void (draft.money = money),
  }),
  'finish.apply': define({
    title: 'Apply finish',
    args: z.object({ targets: z.array(Target).min(1).max(2000), finish: FinishId.nullable() }),
    apply(draft, { targets, finish }) {
      for (const target of targets) {
        applyFinish(draft, target, finish);
        forgetLaying(draft, target);
      }
    },
  }),
};
