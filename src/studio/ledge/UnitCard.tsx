import { CONSTRUCTIONS } from '@/core/cabinetry/figures';
import { readLine, type UnitKind } from '@/core/cabinetry/said';
import { drawFront } from '@/core/drawing/elevation/cabinets';
import { markPath } from '@/core/drawing/svg';
import { PLAIN_LOOK } from '@/core/project/joinery';
import type { UnitSystem } from '@/core/units/length';
import { colours } from '../look/theme';
import { useStudio } from '../store/studio';
import { Card } from './cards';

const BANDS: Readonly<Record<UnitKind['band'], string>> = { base: 'stands', wall: 'hangs', tall: 'tall' };

/** A unit as it is seen from before it, to a scale of its own. */
function Front({ said, system }: { said: string; system: UnitSystem }) {
  const read = readLine(said, system);
  if (!read.ok) return null;
  const [{ front, band, width }] = read.units;
  const made = CONSTRUCTIONS[system === 'metric' ? 'frameless' : 'imperial'];
  const size = { width: width ?? 0.6, height: made[band].height };
  const k = Math.min(52 / size.width, 38 / size.height);
  return (
    <svg width="56" height="42" fill="none" stroke={colours.ink} strokeWidth="1" aria-hidden="true">
      <g transform={`translate(${28 - (size.width * k) / 2} ${21 + (size.height * k) / 2}) scale(${k})`}>
        <rect y={-size.height} width={size.width} height={size.height} vectorEffect="non-scaling-stroke" />
        {drawFront({ front, band }, PLAIN_LOOK, size, made).map((item, i) =>
          item.kind !== 'line' && item.kind !== 'lines' ? null : (
            <path key={i} d={markPath(item)} strokeWidth={item.kind === 'line' ? 0.6 : 1} vectorEffect="non-scaling-stroke" />
          ),
        )}
      </g>
    </svg>
  );
}

/** A kind of unit: taken in hand, it is put down before a wall, one after another. */
export function UnitCard({ kind }: { kind: UnitKind }) {
  const tool = useStudio((s) => s.tool);
  const system = useStudio((s) => s.project.units);
  const width = kind.said.slice(0, -kind.word.length - 1);
  return (
    <Card
      name={`${kind.word[0].toUpperCase()}${kind.word.slice(1)}`}
      line={`${width}, ${BANDS[kind.band]}`}
      on={tool.kind === 'unit' && tool.said === kind.said}
      onPress={() => useStudio.getState().setTool({ kind: 'unit', said: kind.said })}
      picture={<Front said={kind.said} system={system} />}
    />
  );
}
