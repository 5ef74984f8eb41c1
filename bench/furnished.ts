import * as THREE from 'three';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { Deriver } from '@/core/model/derive';
import type { Model } from '@/core/model/model';
import { FIRST_LOOK } from '@/core/project/looks';
import type { Project } from '@/core/project/schema';
import { pictureScene } from '@/core/render/picture';
import { CARDS, forgetParts, pieceFrom } from '@/core/stock/stock';
import { DrawnParts } from '@/studio/table/model/drawn';
import { plainMaterials } from '@/studio/table/model/testing';

type Say = (what: string, ours: string, peer: string, ratio: number) => void;

/** How many pieces a house is furnished with, and of how many cards they are. */
export const PIECES = 300;
const KINDS = 60;

/** The demo with nothing in it, and with 300 pieces of 60 cards, five of each: all over its two floors. */
export function houses(): { empty: Project; full: Project } {
  const empty = { ...heronLockCottage(), pieces: {} };
  // Every fifth card of the whole ledge, whatever it is.
  const cards = CARDS.filter((_, i) => i % Math.floor(CARDS.length / KINDS) === 0).slice(0, KINDS);
  const levels = Object.values(empty.levels);
  const pieces = Object.fromEntries(
    Array.from({ length: PIECES }, (_, n) => {
      const at = { x: 0.5 + ((n * 1.618) % 1) * 9, y: 0.5 + ((n * 0.7548) % 1) * 6 };
      const piece = pieceFrom(cards[n % cards.length], `bench-${n}`, levels[n % levels.length], at, n);
      return [piece.id, piece];
    }),
  );
  return { empty, full: { ...empty, pieces } };
}

/** What a furnished house costs against an empty one: draw calls and memory of the view, the scene of a picture. */
export function furnished(say: Say): void {
  const { empty, full } = houses();
  const shown = (model: Model): { calls: number; bytes: number; apart: number; copies: number } => {
    const scene = new THREE.Group();
    const parts = new DrawnParts(scene, plainMaterials());
    parts.show(model, FIRST_LOOK, true);
    const apart = scene.children.length;
    let copies = 0;
    for (const { source } of parts) copies += source.positions.byteLength * (8 / 3) + source.indices.byteLength;
    parts.rest();
    const out = { calls: scene.children.length, bytes: parts.bytes, apart, copies };
    parts.dispose();
    return out;
  };
  const [bare, own] = [empty, full].map((p) => shown(new Deriver().derive(p)));
  const mb = (b: number): string => `${(b / 1e6).toFixed(1)} MB`;
  say(`draw calls with ${PIECES} pieces (peer: one a part; empty: ${bare.calls})`, String(own.calls), String(own.apart), own.apart / own.calls);
  say(`geometry on the card with ${PIECES} pieces (peer: a copy a part; empty: ${mb(bare.bytes)})`, mb(own.bytes), mb(own.copies), own.copies / own.bytes);
  // The first time every card is made, fine and light; then only what is placed is put together.
  const scene = (p: Project): { ms: number; triangles: number } => {
    const start = performance.now();
    const { material } = pictureScene(new Deriver().derive(p), 32);
    return { ms: performance.now() - start, triangles: material.length };
  };
  forgetParts();
  const first = scene(full);
  const again = scene(full);
  const none = scene(empty);
  const tell = ({ ms, triangles }: { ms: number; triangles: number }): string => `${ms.toFixed(0)} ms, ${Math.round(triangles / 1000)} 000 triangles`;
  say(`the scene of a picture, ${PIECES} pieces, all makers at work (peer: the empty house)`, tell(first), tell(none), none.ms / first.ms);
  say(`the scene of a picture, ${PIECES} pieces, makers remembered (peer: the first time)`, tell(again), tell(first), first.ms / again.ms);
}
