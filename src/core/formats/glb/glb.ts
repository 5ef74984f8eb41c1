import { Accessor, Document, type Material, type Node, type Primitive, WebIO } from '@gltf-transform/core';
import { collectionOf } from '../../project/things';
import type { Model } from '../../derive';
import { blackBody, hexToLinear } from '../../finishes/colour';
import { isPlain, type Finish } from '../../finishes/finish';
import { finishIn, textureOf } from '../../finishes/store';
import { normalMap } from '../../finishes/texture';
import { IDENTITY, type Matrix, type Mesh } from '../../geometry/mesh';
import { cross3, dot3, length3, unit3 } from '../../geometry/vec';
import { surfaceFinish } from '../../shell/surfaces';
import { LAMP_PART } from '../../stock/luminaires';
import { writePng } from '../png';

/** Pixels along the texture of a finish in the exported file. */
const TEXTURE = 512;

/**
 * The model as a binary glTF 2.0 file: metres, y up, one node a wall, room, opening and piece with its name, finishes
 * as materials with colour and relief textures at real size.
 *
 * @param tell told how far it has come, 0 to 1
 */
export async function writeGlb(model: Model, tell?: (share: number) => void): Promise<Uint8Array<ArrayBuffer>> {
  const document = new Document();
  document.getRoot().getAsset().generator = 'Enstegon';
  const buffer = document.createBuffer();
  const scene = document.createScene(model.project.name);
  document.getRoot().setDefaultScene(scene);
  // The model is z up; a quarter turn about x makes it y up.
  const root = document.createNode(model.project.name).setRotation([-Math.SQRT1_2, 0, 0, Math.SQRT1_2]);
  scene.addChild(root);

  const materials = new Map<Finish | string, Material>();
  const material = (finish: Finish): Material => {
    let made = materials.get(finish);
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
    if (!isPlain(finish)) {
      const texture = textureOf(finish, TEXTURE);
      made.setBaseColorFactor([1, 1, 1, finish.translucency > 0.3 ? 0.85 : 1]);
      made.setBaseColorTexture(
        document
          .createTexture(`${finish.name}, colour`)
          .setMimeType('image/png')
          .setImage(writePng(texture.colour, texture.width, texture.height)),
      );
      const normals = normalMap(texture);
      if (normals) {
        // Green points along growing v here, up the picture in glTF.
        for (let i = 1; i < normals.length; i += 4) normals[i] = 255 - normals[i];
        made.setNormalTexture(
          document
            .createTexture(`${finish.name}, relief`)
            .setMimeType('image/png')
            .setImage(writePng(normals, texture.width, texture.height)),
        );
      }
      if (texture.rough) {
        // glTF reads roughness from green and metalness from blue.
        const pixels = new Uint8Array(texture.rough.length * 4).fill(255);
        texture.rough.forEach((r, i) => (pixels[i * 4 + 1] = r));
        made.setRoughnessFactor(1).setMetallicRoughnessTexture(
          document
            .createTexture(`${finish.name}, roughness`)
            .setMimeType('image/png')
            .setImage(writePng(pixels, texture.width, texture.height)),
        );
      }
    }
    materials.set(finish, made);
    return made;
  };

  const primitives = new Map<Mesh, Map<Material, Primitive>>();
  const primitive = (mesh: Mesh, finish: Finish, use: Material): Primitive => {
    let byFinish = primitives.get(mesh);
    if (!byFinish) primitives.set(mesh, (byFinish = new Map()));
    let made = byFinish.get(use);
    if (made) return made;
    const accessor = (name: string, type: 'VEC2' | 'VEC3' | 'VEC4' | 'SCALAR', array: Float32Array | Uint32Array): Accessor =>
      document
        .createAccessor(name)
        .setType(type)
        .setArray(new (array.constructor as Float32ArrayConstructor)(array as Float32Array))
        .setBuffer(buffer);
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
    if (use.getBaseColorTexture()) {
      const { size } = textureOf(finish, TEXTURE);
      made.setAttribute(
        'TEXCOORD_0',
        accessor(
          'texture coordinates',
          'VEC2',
          mesh.uvs.map((t, i) => t / (i % 2 ? size.height : size.width)),
        ),
      );
    }
    if (use.getNormalTexture()) made.setAttribute('TANGENT', accessor('tangents', 'VEC4', tangents(mesh, normals)));
    byFinish.set(use, made);
    return made;
  };

  const place = (made: Node, matrix: Matrix): Node => {
    if (matrix === IDENTITY) return made;
    const angle = Math.atan2(matrix[1], matrix[0]);
    return made.setTranslation([matrix[12], matrix[13], matrix[14]]).setRotation([0, 0, Math.sin(angle / 2), Math.cos(angle / 2)]);
  };
  const node = (name: string, kind: string, id: string, matrix: Matrix): Node => {
    const made = place(document.createNode(name).setExtras({ kind, id }), matrix);
    root.addChild(made);
    return made;
  };

  const total = model.shell.levels.reduce((sum, level) => sum + level.surfaces.length, 0) + model.shell.outside.surfaces.length + model.pieces.length;
  let written = 0;
  const step = (): void => tell?.(written++ / total);

  for (const level of model.shell.levels) {
    const groups = new Map<string, typeof level.surfaces>();
    for (const surface of level.surfaces) if (surface.mesh.indices.length) groups.set(surface.entity, [...(groups.get(surface.entity) ?? []), surface]);
    for (const [entity, surfaces] of groups) {
      const collection = collectionOf(model.project, entity);
      const thing = collection && (model.project[collection][entity] as { name?: string });
      const name = collection === 'levels' || !thing ? `Slab ${level.level.name}` : (thing.name ?? `Wall ${entity}`);
      const kind = collection ? collection.replace(/s$/, '') : 'level';
      // What stands on another matrix, as the floor of a doorway does beside its room, is a node below that of the thing.
      const stands = new Map<string, typeof surfaces>();
      for (const surface of surfaces) {
        const key = String(surface.matrix);
        stands.set(key, [...(stands.get(key) ?? []), surface]);
      }
      const main = stands.size === 1 ? surfaces : (stands.get('null') ?? []);
      const own = node(name, kind, entity, main[0]?.matrix ?? IDENTITY);
      for (const part of stands.values()) {
        const mesh = document.createMesh(name);
        for (const surface of part) {
          step();
          const finish = surfaceFinish(model.project, surface);
          mesh.addPrimitive(primitive(surface.mesh, finish, material(finish)));
        }
        if (part[0] === main[0]) own.setMesh(mesh);
        else own.addChild(place(document.createNode(`${name}, ${part[0].kind}`), part[0].matrix ?? IDENTITY).setMesh(mesh));
      }
    }
  }
  // Of what lies outside, what belongs to the site: not the ground to the horizon.
  for (const surface of model.shell.outside.surfaces) {
    step();
    const collection = collectionOf(model.project, surface.entity);
    // The ground to the horizon has a name that a level may have too.
    if (!collection || collection === 'levels') continue;
    const own = model.project[collection][surface.entity] as { name: string };
    const finish = surfaceFinish(model.project, surface);
    node(`${own.name}, ${surface.key.split('/')[1]}`, collection.replace(/s$/, ''), surface.entity, IDENTITY).setMesh(
      document.createMesh(own.name).addPrimitive(primitive(surface.mesh, finish, material(finish))),
    );
  }
  for (const { piece, parts, matrix } of model.pieces) {
    step();
    if (!parts.length) continue;
    const mesh = document.createMesh(piece.name);
    for (const { part, mesh: geometry, finish: id } of parts) {
      const finish = finishIn(model.project, id);
      let use = material(finish);
      if (part === LAMP_PART && piece.lamp?.on) {
        const key = `lamp ${piece.lamp.kelvin}`;
        let lit = materials.get(key);
        if (!lit) {
          const rgb = blackBody(piece.lamp.kelvin);
          const peak = Math.max(...rgb);
          lit = document
            .createMaterial(`Lit, ${piece.lamp.kelvin} K`)
            .setEmissiveFactor([rgb[0] / peak, rgb[1] / peak, rgb[2] / peak])
            .setBaseColorFactor([0, 0, 0, 1])
            .setMetallicFactor(0);
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

/**
 * Tangents for relief textures (Lengyel, "Computing tangent space basis vectors", 2001): along growing u, square to the
 * normal; the fourth value turns the bitangent up the picture, towards falling v, as glTF reads it.
 */
function tangents(mesh: Mesh, normals: Float32Array): Float32Array<ArrayBuffer> {
  const { positions: p, uvs, indices } = mesh;
  const count = p.length / 3;
  const along = new Float64Array(count * 3);
  const up = new Float64Array(count * 3);
  for (let k = 0; k < indices.length; k += 3) {
    const [a, b, c] = [indices[k], indices[k + 1], indices[k + 2]];
    const [du1, dv1, du2, dv2] = [uvs[b * 2] - uvs[a * 2], uvs[b * 2 + 1] - uvs[a * 2 + 1], uvs[c * 2] - uvs[a * 2], uvs[c * 2 + 1] - uvs[a * 2 + 1]];
    const det = du1 * dv2 - du2 * dv1;
    if (Math.abs(det) < 1e-14) continue;
    for (let i = 0; i < 3; i++) {
      const e1 = p[b * 3 + i] - p[a * 3 + i];
      const e2 = p[c * 3 + i] - p[a * 3 + i];
      for (const v of [a, b, c]) {
        along[v * 3 + i] += (dv2 * e1 - dv1 * e2) * Math.sign(det);
        up[v * 3 + i] += (du1 * e2 - du2 * e1) * Math.sign(det);
      }
    }
  }
  const out = new Float32Array(count * 4);
  for (let v = 0; v < count; v++) {
    const n = { x: normals[v * 3], y: normals[v * 3 + 1], z: normals[v * 3 + 2] };
    const t = { x: along[v * 3], y: along[v * 3 + 1], z: along[v * 3 + 2] };
    const d = dot3(n, t);
    let square = { x: t.x - n.x * d, y: t.y - n.y * d, z: t.z - n.z * d };
    // Where the texture gives no direction, any one square to the normal will do.
    if (length3(square) < 1e-12) square = cross3(n, Math.abs(n.z) < 0.9 ? { x: 0, y: 0, z: 1 } : { x: 1, y: 0, z: 0 });
    const unit = unit3(square);
    const b = cross3(n, unit);
    out.set([unit.x, unit.y, unit.z, b.x * up[v * 3] + b.y * up[v * 3 + 1] + b.z * up[v * 3 + 2] > 0 ? -1 : 1], v * 4);
  }
  return out;
}
