import { Accessor, Document, type mat4, type Material, type Mesh as Mesh3D, type Node, type Primitive, WebIO } from '@gltf-transform/core';
import type { Model } from '../../model/model';
import { blackBody, hexToLinear } from '../../finishes/colour';
import { isPlain, type Finish } from '../../finishes/finish';
import { textureOf } from '../../finishes/store';
import { normalMap } from '../../finishes/texture';
import { IDENTITY, type Matrix, type Mesh } from '../../geometry/mesh';
import { cross3, dot3, length3, unit3 } from '../../geometry/vec';
import { HERE, type Part } from '../../model/body';
import { bodyName, kindWord } from '../../model/names';
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

  const lit = (kelvin: number): Material => {
    const key = `lamp ${kelvin}`;
    let made = materials.get(key);
    if (made) return made;
    const rgb = blackBody(kelvin);
    const peak = Math.max(...rgb);
    made = document
      .createMaterial(`Lit, ${kelvin} K`)
      .setEmissiveFactor([rgb[0] / peak, rgb[1] / peak, rgb[2] / peak])
      .setBaseColorFactor([0, 0, 0, 1])
      .setMetallicFactor(0);
    materials.set(key, made);
    return made;
  };

  const node = (name: string, matrix: Matrix): Node => {
    const made = document.createNode(name);
    return matrix === IDENTITY ? made : made.setMatrix([...matrix] as mat4);
  };
  // Of what lies outside, what belongs to the site: not the land round about, nor what is seen beyond it.
  const bodies = model.bodies.filter((body) => body.kind !== 'site' && body.kind !== 'backdrop');
  // The time goes into the textures of parts: it is told part by part.
  const total = bodies.reduce((sum, body) => sum + body.parts.length, 0);
  let written = 0;
  // Things that are alike share one mesh, so that a reader can draw them as instances.
  const meshes = new Map<string, Mesh3D>();
  const ids = new Map<Primitive, number>();
  const meshOf = (name: string, parts: readonly Part[]): Mesh3D => {
    const own = parts.map((part) => {
      tell?.(written++ / total);
      const use = part.lamp?.on ? lit(part.lamp.kelvin) : material(part.laid);
      return primitive(part.mesh, part.laid, use);
    });
    const key = own
      .map((p) => {
        if (!ids.has(p)) ids.set(p, ids.size);
        return ids.get(p);
      })
      .join(' ');
    let made = meshes.get(key);
    if (!made) {
      made = document.createMesh(name);
      for (const p of own) made.addPrimitive(p);
      meshes.set(key, made);
    }
    return made;
  };

  for (const body of bodies) {
    const name = bodyName(model.project, body);
    const own = node(name, body.matrix).setExtras({ kind: kindWord(body.kind), id: body.id });
    root.addChild(own);
    const here = body.parts.filter((part) => part.at === HERE);
    if (here.length) own.setMesh(meshOf(name, here));
    // What stands elsewhere in its body, as the floor of a doorway does beside its room, is a node below that of the thing.
    const elsewhere = new Map<readonly Matrix[], Part[]>();
    for (const part of body.parts) if (part.at !== HERE) elsewhere.set(part.at, [...(elsewhere.get(part.at) ?? []), part]);
    for (const [places, parts] of elsewhere) {
      const called = `${name}, ${parts[0].name}`;
      const mesh = meshOf(called, parts);
      for (const place of places) own.addChild(node(called, place).setMesh(mesh));
    }
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
