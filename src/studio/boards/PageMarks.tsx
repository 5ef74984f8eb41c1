'use client';
import { memo } from 'react';
import type { Board } from '@/core/project/schema';
import type { FaceMeasure } from '@/core/boards/page';
import { SHADOW } from '@/core/boards/shadow';
import type { PageMark, Shown } from '@/core/drawing/display';
import { ringPath } from '@/core/drawing/svg';
import { fillOf, INKS } from '@/core/drawing/inks';
import { meanHex } from '@/core/finishes/finish';
import { useSample } from '../finishes/textures';
import { SANS, SERIF } from '../look/theme';
import { useFinish } from '../store/studio';

let context: CanvasRenderingContext2D | null = null;
const familyOf = (face: 'sans' | 'serif'): string => (face === 'serif' ? SERIF : SANS);

/** Width of a text in the page's fonts, metres. */
export const measureText: FaceMeasure = (text, face, size) => {
  if (typeof document === 'undefined') return 0;
  context ??= document.createElement('canvas').getContext('2d');
  context!.font = `100px ${familyOf(face)}`;
  return (context!.measureText(text).width / 100) * size;
};

/** Units of the drawing per metre: browsers draw no type smaller than a pixel of its own units well. */
const K = 4000;

/** Writes the marks of a page, or of one thing on it, to fill the box it stands in. @param small a page seen from afar: samples as even colours */
export function PageMarks({ marks, paper, small = false }: { marks: readonly PageMark[]; paper: Board['paper']; small?: boolean }) {
  return (
    <svg
      viewBox={`0 ${-paper.height * K} ${paper.width * K} ${paper.height * K}`}
      width="100%"
      height="100%"
      style={{ overflow: 'visible', display: 'block' }}
      aria-hidden
    >
      {marks.map((mark, i) => (
        <Mark key={i} mark={mark} small={small} />
      ))}
    </svg>
  );
}

function Mark({ mark, small }: { mark: PageMark; small: boolean }) {
  if (mark.kind === 'fill')
    return <path d={ringPath(mark.rings.map((ring) => ring.map((p) => ({ x: p.x * K, y: p.y * K }))))} fill={fillOf(mark)} fillRule="evenodd" />;
  if (mark.kind === 'words')
    return (
      <text
        x={mark.at.x * K}
        y={-mark.at.y * K}
        fontSize={mark.size * K}
        fontFamily={familyOf(mark.face)}
        fill={INKS[mark.ink]}
        style={{ fontStretch: '100%' }}
      >
        {mark.text}
      </text>
    );
  const box = { x: mark.min.x * K, y: -mark.max.y * K, width: (mark.max.x - mark.min.x) * K, height: (mark.max.y - mark.min.y) * K };
  if (mark.kind === 'image') return <Shows shows={mark.shows} box={box} width={mark.max.x - mark.min.x} small={small} />;
  if (small) return null;
  const { dx, dy, blur, strength } = SHADOW;
  const style = { filter: `blur(${(blur * K) / 2}px)` };
  return mark.round ? (
    <circle
      cx={box.x + box.width / 2 + dx * K}
      cy={box.y + box.height / 2 + dy * K}
      r={Math.min(box.width, box.height) / 2}
      fillOpacity={strength}
      style={style}
    />
  ) : (
    <rect {...box} x={box.x + dx * K} y={box.y + dy * K} fillOpacity={strength} style={style} />
  );
}

interface ShowsProps {
  shows: Shown;
  box: { x: number; y: number; width: number; height: number };
  /** Metres. */
  width: number;
  small: boolean;
}

const Shows = memo(
  function Shows({ shows, box, width, small }: ShowsProps) {
    if (shows.kind === 'picture') return <image href={`/api/assets/${shows.hash}`} {...box} preserveAspectRatio="none" />;
    const Chip = small ? Even : Sample;
    return <Chip shows={shows} box={box} width={width} />;
  },
  (a, b) => JSON.stringify(a) === JSON.stringify(b),
);

type ChipProps = Omit<ShowsProps, 'shows' | 'small'> & { shows: Extract<Shown, { kind: 'sample' }> };

/** A sample in its mean colour: from afar, and until it is drawn. */
function Even({ shows: { finish, form }, box }: ChipProps) {
  const fill = meanHex(useFinish(finish));
  return form === 'disc' ? (
    <circle cx={box.x + box.width / 2} cy={box.y + box.height / 2} r={Math.min(box.width, box.height) / 2} fill={fill} />
  ) : (
    <rect {...box} fill={fill} />
  );
}

function Sample(props: ChipProps) {
  const { shows, box, width } = props;
  const w = Math.max(24, Math.min(900, Math.round((width * 2400) / 8) * 8));
  const h = Math.max(12, Math.round((w * box.height) / box.width));
  const url = useSample(useFinish(shows.finish), shows.form, w, h);
  return url ? <image href={url} {...box} preserveAspectRatio="none" /> : <Even {...props} />;
}
