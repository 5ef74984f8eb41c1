import type { FaceTarget } from './commands/finishing';

/** The outside, where a room is meant. */
const OUTSIDE = '*';

/** What a finish is chosen for as one line of text, by which choices are kept. */
export function addressOf(target: FaceTarget): string {
  switch (target.kind) {
    case 'floor':
    case 'ceiling':
      return `${target.kind}/${target.room}`;
    case 'walls':
      return `walls/${target.room ?? OUTSIDE}`;
    case 'wall':
      return `wall/${target.room ?? OUTSIDE}/${target.wall}/${target.side}`;
    case 'piece':
      return `piece/${target.piece}/${target.part}`;
    case 'opening':
      return `opening/${target.opening}/${target.part}`;
    case 'column':
      return `column/${target.column}`;
    case 'roof':
      return `roof/${target.roof}/${target.part}`;
    case 'part':
      return `part/${target.of}/${target.part}`;
    case 'patch':
      return `patch/${target.patch}/${target.part}`;
    case 'moulding':
      return `moulding/${target.moulding}`;
    case 'ground':
      return 'ground';
  }
}

/** What an address means; null where it is none. */
export function targetOf(address: string): FaceTarget | null {
  const [kind, a, b, c] = address.split('/');
  const room = a === OUTSIDE ? null : a;
  switch (kind) {
    case 'floor':
    case 'ceiling':
      return a ? { kind, room: a } : null;
    case 'walls':
      return a ? { kind, room } : null;
    case 'wall':
      return b && (c === 'left' || c === 'right') ? { kind, room, wall: b, side: c } : null;
    case 'piece':
      return b ? { kind, piece: a, part: b } : null;
    case 'opening':
      return b ? { kind, opening: a, part: b } : null;
    case 'column':
      return a ? { kind, column: a } : null;
    case 'roof':
      return b === 'covering' || b === 'soffit' || b === 'fascia' || b === 'timber' ? { kind, roof: a, part: b } : null;
    case 'part':
      return b ? { kind, of: a, part: b } : null;
    case 'patch':
      return b === 'field' || b === 'panels' || b === 'moulding' ? { kind, patch: a, part: b } : null;
    case 'moulding':
      return a ? { kind, moulding: a } : null;
    case 'ground':
      return { kind };
    default:
      return null;
  }
}
