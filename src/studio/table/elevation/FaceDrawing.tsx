import { meanHex } from '@/core/finishes/finish';
import type { Placing } from '@/core/finishes/laying/place';
import { finishIn } from '@/core/finishes/store';
import type { Region } from '@/core/geometry/polygon';
import type { Vec2 } from '@/core/geometry/vec';
import { openingOutline } from '@/core/project/openings';
import type { Finish, Opening, Project } from '@/core/project/schema';
import { standingIn } from '@/core/project/standing';
import { patchPlacing, type DressedFace } from '@/core/shell/dress/dress';
import { handlesOf } from '@/core/shell/dress/patch-handles';
import type { DerivedPatch } from '@/core/shell/dress/patches';
import { faceX } from '@/core/shell/wall-face';
import { formatLength } from '@/core/units/length';
import { useLayout } from '../../finishes/layouts';
import { colours } from '../../look/theme';
import { targetName } from '../../store/studio';
import type { Placed } from './placing';

/** From metres of the drawing to its pixels. */
export interface Sheet {
  k: number;
  ox: number;
  oy: number;
}

export const screenOf = ({ k, ox, oy }: Sheet, x: number, y: number): Vec2 => ({ x: ox + k * x, y: oy - k * y });

/** A closed outline in pixels, moved along by `x` metres. */
export const ringOf = (sheet: Sheet, list: readonly Vec2[], x = 0): string =>
  `M${list
    .map((p) => {
      const q = screenOf(sheet, p.x + x, p.y);
      return `${q.x.toFixed(2)} ${q.y.toFixed(2)}`;
    })
    .join('L')}Z`;

const regionPath = (sheet: Sheet, list: readonly Region[], x: number): string =>
  list
    .flatMap((r) => [r.outer, ...r.holes])
    .map((r) => ringOf(sheet, r, x))
    .join('');

interface Shown {
  sheet: Sheet;
  project: Project;
  chosen: ReadonlySet<string>;
}

/** One face, drawn: its finish in pale, the units as they are laid, patches, openings, its length. */
export function FaceDrawing({ placed: { face, x }, named, sheet, project, shell, chosen }: Shown & { placed: Placed; named: boolean; shell: Project }) {
  const side = face.side!;
  const outline = [{ x: 0, y: side.foot }, { x: side.length, y: side.foot }, ...[...side.top].reverse()];
  const [from, to] = [screenOf(sheet, x, side.foot), screenOf(sheet, x + side.length, side.foot)];
  return (
    <g>
      <path d={ringOf(sheet, outline, x)} fill={tint(project, face.finish, face.chosen)} stroke={colours.ink} strokeWidth={1.3} />
      <LaidLines of={face} laid={face.laid} placing={face.placing} regions={rest(face)} sheet={sheet} x={x} ink="#00000040" />
      {face.patches.map((derived) => (
        <PatchDrawing key={derived.patch.id} derived={derived} x={x} sheet={sheet} project={project} chosen={chosen} />
      ))}
      {standingIn(shell, side.wall).map((o) => (
        <OpeningMark key={o.id} opening={o} face={face} d={(list) => ringOf(sheet, list, x)} on={chosen.has(o.id)} />
      ))}
      <g stroke={colours.teal} fill={colours.teal} fontSize={11} textAnchor="middle">
        <path d={`M${from.x} ${from.y + 22}L${to.x} ${to.y + 22}`} strokeWidth={0.8} />
        {[from, to].map((end, i) => (
          <path key={i} d={`M${end.x - 4} ${end.y + 26}L${end.x + 4} ${end.y + 18}`} strokeWidth={1} />
        ))}
        <text stroke="none" x={(from.x + to.x) / 2} y={from.y + 18}>
          {formatLength(side.length, project.units)}
        </text>
        {named ? (
          <text stroke="none" fill={colours.second} x={(from.x + to.x) / 2} y={from.y + 38}>
            {targetName(project, face.target).replace(/^.*, /, '')}
          </text>
        ) : null}
      </g>
    </g>
  );
}

function PatchDrawing({ derived, x, sheet, project, chosen }: Shown & { derived: DerivedPatch; x: number }) {
  const { laid, placing } = patchPlacing(project, derived);
  const { patch, regions, panels } = derived;
  const on = chosen.has(patch.id);
  return (
    <g data-entity={patch.id} style={{ cursor: 'pointer' }}>
      <path
        d={regionPath(sheet, regions, x)}
        fill={tint(project, patch.finish, true)}
        fillRule="evenodd"
        stroke={on ? colours.damson : colours.ink}
        strokeWidth={on ? 1.8 : 0.9}
      >
        <title>{patch.name}</title>
      </path>
      <LaidLines of={derived} laid={laid} placing={placing} regions={regions} sheet={sheet} x={x} ink="#00000055" />
      {panels.map((r, i) => (
        <path key={i} d={ringOf(sheet, r, x)} fill="none" stroke={colours.ink} strokeWidth={0.7} />
      ))}
    </g>
  );
}

/** Where the chosen patch can be taken hold of. */
export function Handles({ placed: { face, x }, derived, sheet }: { placed: Placed; derived: DerivedPatch; sheet: Sheet }) {
  return (
    <g>
      {handlesOf(derived.patch, face).map(({ at, adds }, i) => {
        const { x: cx, y: cy } = screenOf(sheet, at.x + x, at.y);
        return (
          <circle
            key={i}
            data-handle={i}
            data-patch={derived.patch.id}
            cx={cx}
            cy={cy}
            r={adds ? 3 : 5}
            fill="#fff"
            fillOpacity={adds ? 0.7 : 1}
            stroke={colours.damson}
            strokeWidth={1.4}
            style={{ cursor: 'grab' }}
          >
            <title>{adds ? 'Drag to add a corner' : derived.patch.shape.kind === 'band' ? 'Drag this edge' : 'Drag this corner'}</title>
          </circle>
        );
      })}
    </g>
  );
}

/** Most units whose outlines are drawn: more are a grey. */
const MOST_LINES = 6000;

/** The outlines of the units on a face, as they are counted; none where they would be a grey. */
function LaidLines(props: { of: object; laid: Finish; placing: Placing; regions: readonly Region[]; sheet: Sheet; x: number; ink: string }) {
  const { of, laid, placing, regions, sheet, x, ink } = props;
  const fine = !laid.laying || laid.laying.height * sheet.k < 3 || !regions.length;
  const layout = useLayout(fine ? null : of, laid.laying, placing, regions);
  if (fine || !layout || layout.rings.length > MOST_LINES) return null;
  return <path d={layout.rings.map((r) => ringOf(sheet, r, x)).join('')} fill="none" stroke={ink} strokeWidth={0.6} pointerEvents="none" />;
}

function OpeningMark({ opening: o, face, d, on }: { opening: Opening; face: DressedFace; d(list: readonly Vec2[]): string; on: boolean }) {
  const side = face.side!;
  if (o.kind === 'niche' && o.swing !== side.side) return null;
  if (o.at < side.s0 - 1e-6 || o.at > side.s1 + 1e-6) return null;
  const outline = openingOutline(o).map((p) => ({ x: faceX(side, o.at + p.x), y: p.y }));
  return (
    <path
      data-entity={o.id}
      d={d(outline)}
      fill={on ? '#EBD9E0' : '#fff'}
      stroke={on ? colours.damson : colours.ink}
      strokeWidth={1.1}
      style={{ cursor: 'pointer' }}
    >
      <title>{o.name}</title>
    </path>
  );
}

/** What of a face lies between its patches. */
const rest = (face: DressedFace): Region[] => (face.patches.length ? [] : face.regions);

/** The colour of a finish, paled so that lines show on it. */
function tint(project: Project, finish: string, chosen: boolean): string {
  if (!chosen) return '#F7F7F5';
  const n = parseInt(meanHex(finishIn(project, finish)).slice(1), 16);
  const pale = (v: number): number => Math.round(v + (255 - v) * 0.45);
  return `rgb(${pale((n >> 16) & 255)} ${pale((n >> 8) & 255)} ${pale(n & 255)})`;
}
