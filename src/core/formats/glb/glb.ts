import { Accessor, Document, type Material, type Node, type Primitive, WebIO } from '@gltf-transform/core';
import type { Model } from '../../derive';
import { blackBody, hexToLinear } from '../../finishes/colour';
import type { Finish } from '../../finishes/finish';
import { finishById } from '../../finishes/library';
import { normalMap } from '../../finishes/texture';
import { IDENTITY, type Matrix, type Mesh } from '../../geometry/mesh';
import { textureOf } from '../../render/picture';
import { LAMP_PART } from '../../stock/luminaires';
import { writePng } from '../png';

/** Pixels along the texture of a finish in the exported file. */
const TEXTURE = 512;

/**
 * The model as a binary glTF 2.0 file: metres, y up, one node a wall, room, opening and piece with its name, finishes
 * as materials with colour and relief textures at real size.
 */
export async function writeGlb(model: Model): Promise<Uint8Array<ArrayBuffer>> {
  const document = new Document();
  document.getRoot().getAsset().generator = 'Enstegon';
  const buffer = document.createBuffer();
  const scene = document.createScene(model.project.name);
  document.getRoot().setDefaultScene(scene);
  // The model is z up; a quarter turn about x makes it y up.
  const root = document.createNode(model.project.name).setRotation([-Math.SQRT1_2, 0, 0, Math.SQRT1_2]);
  scene.addChild(root);

  const materials = new Map<string, Material>();
  const material = (finish: Finish): Material => {
    let made = materials.get(finish.id);
    if (made) return made;
    const rgb = hexToLinear(finish.colour);
    const glass = finish.transmission > 0;
    made = document
      .createMaterial(finish.name)
      .setExtras({ finish: finish.id })
      .setBaseColorFactor([...rgb, glass ? 0.18 : finish.translucency > 0.3 ? 0.85 : 1])
      .setRoughnessFactor(finish.roughness)
      .setMetallicFactor(finish.metalness)
      .setAlphaMode(glass || finish.translucency > 0.3 ? 'BLEND' : 'OPAQUE')
      .setDoubleSided(true);
    if (finish.maker.kind !== 'flat') {
      const texture = textureOf(finish, TEXTURE);
      made.setBaseColorFactor([1, 1, 1, finish.translucency > 0.3 ? 0.85 : 1]);
      made.setBaseColorTexture(document.createTexture(`${finish.name}, colour`).setMimeType('image/png').setImage(writePng(texture.colour, texture.width, texture.height)));
      const normals = normalMap(texture, finish.size);
      if (normals) {
        // Green points along growing v here, up the picture in glTF.
        for (let i = 1; i < normals.length; i += 4) normals[i] = 255 - normals[i];
        made.setNormalTexture(document.createTexture(`${finish.name}, relief`).setMimeType('image/png').setImage(writePng(normals, texture.width, texture.height)));
      }
    }
    materials.set(finish.id, made);
    return made;
  };

  const primitives = new Map<Mesh, Map<string, Primitive>>();
  const primitive = (mesh: Mesh, finish: Finish, use: Material): Primitive => {
    let byFinish = primitives.get(mesh);
    if (!byFinish) primitives.set(mesh, (byFinish = new Map()));
    const key = `${finish.id} ${use.getName()}`;
    let made = byFinish.get(key);
    if (made) return made;
    const accessor = (name: string, type: 'VEC2' | 'VEC3' | 'SCALAR', array: Float32Array | Uint32Array): Accessor =>
      document.createAccessor(name).setType(type).setArray(new (array.constructor as Float32ArrayConstructor)(array as Float32Array)).setBuffer(buffer);
    const normals = mesh.normals.slice();
    for (let i = 0; i < normals.length; i += 3) {
      const l = Math.hypot(normals[i], normals[i + 1], normals[i + 2]) || 1;
      for (let c = 0; c < 3; c++) normals[i + c] /= l;
      if (!normals[i] && !normals[i + 1] && !normals[i + 2]) normals[i + 2] = 1;
    }
    made = document
      .createPrimitive()
      .setIndices(accessor('indices', 'SCALAR', mesh.indices))
      .setAttribute('POSITION', accessor('positions', 'VEC3', mesh.positions))
      .setAttribute('NORMAL', accessor('normals', 'VEC3', normals))
      .setMaterial(use);
    if (use.getBaseColorTexture())
      made.setAttribute('TEXCOORD_0', accessor('texture coordinates', 'VEC2', mesh.uvs.map((t, i) => t / (i % 2 ? finish.size.height : finish.size.width))));
    byFinish.set(key, made);
    return made;
  };

  const node = (name: string, kind: string, id: string, matrix: Matrix): Node => {
    const made = document.createNode(name).setExtras({ kind, id });
    if (matrix !== IDENTITY) {
      made.setTranslation([matrix[12], matrix[13], matrix[14]]);
      const angle = Math.atan2(matrix[1], matrix[0]);
      made.setRotation([0, 0, Math.sin(angle / 2), Math.cos(angle / 2)]);
    }
    root.addChild(made);
    return made;
  };

  for (const level of model.shell.levels) {
    const groups = new Map<string, typeof level.surfaces>();
    for (const surface of level.surfaces) if (surface.mesh.indices.length) groups.set(surface.entity, [...(groups.get(surface.entity) ?? []), surface]);
    for (const [entity, surfaces] of groups) {
      const room = model.project.rooms[entity];
      const opening = model.project.openings[entity];
      const wall = model.project.walls[entity];
      const name = room?.name ?? opening?.name ?? (wall ? `Wall ${entity}` : `Slab ${level.level.name}`);
      const kind = room ? 'room' : opening ? 'opening' : wall ? 'wall' : 'level';
      const mesh = document.createMesh(name);
      for (const surface of surfaces) {
        const finish = finishById(surface.finish);
        mesh.addPrimitive(primitive(surface.mesh, finish, material(finish)));
      }
      node(name, kind, entity, surfaces[0].matrix ?? IDENTITY).setMesh(mesh);
    }
  }
  for (const { piece, parts, matrix } of model.pieces) {
    if (!parts.length) continue;
    const mesh = document.createMesh(piece.name);
    for (const { part, mesh: geometry, finish: id } of parts) {
      const finish = finishById(id);
      let use = material(finish);
      if (part === LAMP_PART && piece.lamp?.on) {
        const key = `lamp ${piece.lamp.kelvin}`;
        let lit = materials.get(key);
        if (!lit) {
          const rgb = blackBody(piece.lamp.kelvin);
          const peak = Math.max(...rgb);
          lit = document.createMaterial(`Lit, ${piece.lamp.kelvin} K`).setEmissiveFactor([rgb[0] / peak, rgb[1] / peak, rgb[2] / peak]).setBaseColorFactor([0, 0, 0, 1]).setMetallicFactor(0);
          materials.set(key, lit);
        }
        use = lit;
      }
      mesh.addPrimitive(primitive(geometry, finish, use));
    }
    node(piece.name, 'piece', piece.id, matrix).setMesh(mesh);
  }
  return new Uint8Array(await new WebIO().writeBinary(document));
}
