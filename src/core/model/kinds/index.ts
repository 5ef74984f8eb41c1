import { runFindings } from '../../checks/cabinets';
import { groundFindings, openingFindings, pieceFindings, slabFindings, stairFindings, voidFindings } from '../../checks/things';
import { deriveRunIn, putRun } from '../../cabinetry/derive';
import { drawColumn, drawBeam } from '../../drawing/plan/posts';
import { drawRunUpright } from '../../drawing/elevation/cabinets';
import { drawRun } from '../../drawing/plan/cabinets';
import { drawFence, drawGround } from '../../drawing/plan/site';
import { kindOf, type CollectionName, type PROJECT_KINDS, type Thing } from '../../project/kinds';
import type { Project } from '../../project/schema';
import { deriveBeam } from '../../shell/built';
import { columnSolid } from '../../shell/columns';
import { deriveGroundIn } from '../../shell/ground';
import { deriveFenceIn } from '../../shell/outside';
import type { ModelKind } from './kind';

export type { ModelKind } from './kind';

type Own<K extends CollectionName> = Project[K][string];

/** A kind with its things and what is derived of them told by its functions. */
const kind = <K extends CollectionName, D extends object = object>(_: K, own: ModelKind<Own<K>, D>): ModelKind => own as unknown as ModelKind;

/** What the model layer knows of the kinds, by collection. */
export const MODEL_KINDS: Partial<Record<keyof typeof PROJECT_KINDS, ModelKind>> = {
  columns: kind('columns', {
    derive: (column, { memo, level, owner, parts }) => {
      const derived = memo.get('column', column.id, [column, level], () => columnSolid(column, level!));
      parts.putOf(owner, column, { part: 'body', sort: 'column', mesh: derived.mesh });
      return derived;
    },
    plan: drawColumn,
  }),
  beams: kind('beams', {
    derive: (beam, { memo, level, owner, parts }) => {
      const derived = memo.get('beam', beam.id, [beam, level], () => deriveBeam(beam, level!));
      parts.putOf(owner, beam, { part: 'body', sort: 'beam', mesh: derived.mesh, grain: 'length' });
      return derived;
    },
    plan: drawBeam,
  }),
  grounds: kind('grounds', { derive: deriveGroundIn, plan: drawGround, checks: groundFindings }),
  fences: kind('fences', { derive: deriveFenceIn, plan: drawFence }),
  stairs: kind('stairs', { checks: stairFindings }),
  voids: kind('voids', { checks: voidFindings }),
  slabs: kind('slabs', { checks: slabFindings }),
  openings: kind('openings', { checks: openingFindings }),
  runs: kind('runs', { derive: deriveRunIn, put: putRun, plan: drawRun, standing: true, elevation: drawRunUpright, checks: runFindings }),
  pieces: kind('pieces', { checks: pieceFindings }),
};

const NOTHING: ModelKind = {};

/** What the model layer knows of a collection’s things. */
export const modelKind = (collection: CollectionName): ModelKind => MODEL_KINDS[collection] ?? NOTHING;

/** Whether a thing stands on a level, or outside where no level is meant. */
export const standsOn = (collection: CollectionName, thing: Thing, level: string | null): boolean =>
  kindOf(collection).onLevel ? thing.level === level : level === null;
