import { Accessor, Document, type mat4, type Material, type Mesh as Mesh3D, type Node, type Primitive, WebIO } from '@gltf-transform/core';
import type { Model } from '../../model/model';
import { blackBody, hexToLinear } from '../../finishes/colour';
import { isOpen, type Finish } from '../../finishes/finish';
import { textureSpan } from '../../finishes/texture';
import { IDENTITY, type Matrix, type Mesh } from '../../geometry/mesh';
import { HERE, type Body, type Part } from '../../model/body';
import { bodyName, kindWord } from '../../model/names';
import { writePng } from '../png';
import { makePictures, type EncodePng, type FinishPictures } from './pictures';
import { tangents } from './tangents';

interface Options {
  /** Told how far it has come, 0 to 1. */
  tell?(share: number): void;
  /** Writes the pictures; where it works beside, the next one is made meanwhile. */
  encode?: EncodePng;
}

/** Making pictures takes this share of the time. */
const PICTURES = 0.85;

/**
 * The model as a binary glTF 2.0 file: metres, y up, one node a wall, room, opening and piece with its name, finishes
 * as materials with colour and relief textures at real size.
 */
export async function writeGlb(model: Model, { tell, encode = writePng }: Options = {}): Promise<Uint8Array<ArrayBuffer>> {
  // Of what lies outside, what belongs to the site: not the land round about, nor what is seen beyond it.
  const bodies = model.bodies.filter((body) => body.kind !== 'site' && body.kind !== 'backdrop');
  const unlit = bodies.flatMap((body) => body.parts.filter((part) => !part.lamp?.on).map((part) => part.laid));
  const pictures = await makePictures(unlit, encode, (share) => tell?.(share * PICTURES));
  const writer = new GlbWriter(model, pictures);
  bodies.forEach((body, i) => {
    tell?.(PICTURES + ((1 - PICTURES) * i) / bodies.length);
    writer.add(body);
  });
  return new Uint8Array(await new WebIO().writeBinary(writer.document));
}

/** A glTF document that bodies are added to; what is alike is shared. */
class GlbWriter {
  readonly document = new Document();
  private readonly buffer = this.document.createBuffer();
  private readonly root: Node;
  private readonly materials = new Map<Finish | string, Material>();
  private readonly primitives = new Map<Mesh, Map<Material, Primitive>>();
  /** Meshes by the numbers of their primitives: things that are alike share one, so that a reader can draw them as instances. */
  private readonly meshes = new Map<string, Mesh3D>();
  private readonly numbers = new Map<Primitive, number>();

  constructor(
    private readonly model: Model,
    private readonly pictures: ReadonlyMap<Finish, FinishPictures>,
  ) {
    const { name } = model.project;
    const root = this.document.getRoot();
    root.getAsset().generator = 'Enstegon';
    const scene = this.document.createScene(name);
    root.setDefaultScene(scene);
    // The model is z up; a quarter turn about x makes it y up.
    this.root = this.document.createNode(name).setRotation([-Math.SQRT1_2, 0, 0, Math.SQRT1_2]);
    scene.addChild(this.root);
  }

  add(body: Body): void {
    const name = bodyName(this.model.project, body);
    const own = this.node(name, body.matrix).setExtras({ kind: kindWord(body.kind), id: body.id });
    this.root.addChild(own);
    const here = body.parts.filter((part) => part.at === HERE);
    if (here.length) own.setMesh(this.mesh(name, here));
    // What stands elsewhere in its body, as the floor of a doorway does beside its room, is a node below that of the thing.
    const elsewhere = new Map<readonly Matrix[], Part[]>();
    for (const part of body.parts) if (part.at !== HERE) elsewhere.set(part.at, [...(elsewhere.get(part.at) ?? []), part]);
    for (const [places, parts] of elsewhere) {
      const called = `${name}, ${parts[0].name}`;
      const mesh = this.mesh(called, parts);
      for (const place of places) own.addChild(this.node(called, place).setMesh(mesh));
    }
  }

  private node(name: string, matrix: Matrix): Node {
    const made = this.document.createNode(name);
    return matrix === IDENTITY ? made : made.setMatrix([...matrix] as mat4);
  }

  private mesh(name: string, parts: readonly Part[]): Mesh3D {
    const own = parts.map((part) => this.primitive(part));
    const key = own.map((p) => this.numbers.get(p)).join(' ');
    let made = this.meshes.get(key);
    if (!made) {
      made = this.document.createMesh(name);
      for (const p of own) made.addPrimitive(p);
      this.meshes.set(key, made);
    }
    return made;
  }

  private primitive({ mesh, laid: finish, lamp }: Part): Primitive {
    const use = lamp?.on ? this.lit(lamp.kelvin) : this.material(finish);
    let byMaterial = this.primitives.get(mesh);
    if (!byMaterial) this.primitives.set(mesh, (byMaterial = new Map()));
    const known = byMaterial.get(use);
    if (known) return known;
    const normals = mesh.normals.slice();
    for (let i = 0; i < normals.length; i += 3) {
      const l = Math.sqrt(normals[i] * normals[i] + normals[i + 1] * normals[i + 1] + normals[i + 2] * normals[i + 2]) || 1;
      for (let c = 0; c < 3; c++) normals[i + c] /= l;
      if (!normals[i] && !normals[i + 1] && !normals[i + 2]) normals[i + 2] = 1;
    }
    const made = this.document
      .createPrimitive()
      .setIndices(this.accessor('indices', 'SCALAR', mesh.indices))
      .setAttribute('POSITION', this.accessor('positions', 'VEC3', mesh.positions))
      .setAttribute('NORMAL', this.accessor('normals', 'VEC3', normals))
      .setMaterial(use);
    if (use.getBaseColorTexture()) {
      const size = textureSpan(finish);
      const uvs = mesh.uvs.map((t, i) => t / (i % 2 ? size.height : size.width));
      made.setAttribute('TEXCOORD_0', this.accessor('texture coordinates', 'VEC2', uvs));
    }
    if (use.getNormalTexture()) made.setAttribute('TANGENT', this.accessor('tangents', 'VEC4', tangents(mesh, normals)));
    byMaterial.set(use, made);
    this.numbers.set(made, this.numbers.size);
    return made;
  }

  private accessor(name: string, type: 'VEC2' | 'VEC3' | 'VEC4' | 'SCALAR', array: Float32Array | Uint32Array): Accessor {
    return this.document
      .createAccessor(name)
      .setType(type)
      .setArray(new (array.constructor as Float32ArrayConstructor)(array as Float32Array))
      .setBuffer(this.buffer);
  }

  private material(finish: Finish): Material {
    const known = this.materials.get(finish);
    if (known) return known;
    const glass = finish.transmission > 0;
    const veil = finish.translucency > 0.3;
    const made = this.document
      .createMaterial(finish.name)
      .setExtras({ finish: finish.id })
      .setBaseColorFactor([...hexToLinear(finish.colour), glass ? 0.18 : veil ? 0.85 : 1])
      .setRoughnessFactor(finish.roughness)
      .setMetallicFactor(finish.metalness)
      .setAlphaMode(glass || veil ? 'BLEND' : isOpen(finish) ? 'MASK' : 'OPAQUE')
      .setDoubleSided(true);
    const pictures = this.pictures.get(finish);
    if (pictures) {
      const texture = (what: string, png: Uint8Array) =>
        this.document
          .createTexture(`${finish.name}, ${what}`)
          .setMimeType('image/png')
          .setImage(png as Uint8Array<ArrayBuffer>);
      made.setBaseColorFactor([1, 1, 1, veil ? 0.85 : 1]).setBaseColorTexture(texture('colour', pictures.colour));
      if (pictures.relief) made.setNormalTexture(texture('relief', pictures.relief));
      if (pictures.rough) made.setRoughnessFactor(1).setMetallicRoughnessTexture(texture('roughness', pictures.rough));
    }
    this.materials.set(finish, made);
    return made;
  }

  /** What glows. @param kelvin its colour temperature */
  private lit(kelvin: number): Material {
    const key = `lamp ${kelvin}`;
    const known = this.materials.get(key);
    if (known) return known;
    const rgb = blackBody(kelvin);
    const peak = Math.max(...rgb);
    const made = this.document
      .createMaterial(`Lit, ${kelvin} K`)
      .setEmissiveFactor([rgb[0] / peak, rgb[1] / peak, rgb[2] / peak])
      .setBaseColorFactor([0, 0, 0, 1])
      .setMetallicFactor(0);
    this.materials.set(key, made);
    return made;
  }
}
