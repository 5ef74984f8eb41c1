'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { FIRST_COLOURS } from '@/core/project/kinds/first-finishes';
import { meanHex, finishLrv } from '@/core/finishes/finish';
import { finish as shipped } from '@/core/finishes/library/make';
import { nearnessOf, coated, nearest } from '@/core/finishes/match';
import { CLOTH_SHEENS, PASSINGS, passingOf, RELIEFS, valueOf, withPassing, wordOf, type Passing } from '@/core/finishes/trade-words';
import { glossOf, roughnessFor, SHEENS, sheenOf } from '@/core/render/gloss';
import { offered } from '@/core/finishes/library';
import { finishIn } from '@/core/finishes/store';
import { CATEGORIES, ROLES, type Category, type Finish, type Role } from '@/core/project/schema';
import { useEdit } from '../docket/parts';
import { FieldTable, type Field } from '../look/FieldTable';
import { TextField } from '../look/fields';
import { colours } from '../look/theme';
import { newId, useStudio } from '../store/studio';
import { useSample } from './textures';
import { takeFinish } from '../tools/finishing';
import { FromImage } from './FromImage';
import { MakerRows } from './MakerRows';
import { close, Sheet } from './Sheet';
import { useFinishing } from './finishing';
import { keepInLibrary } from '../store/library';

const UNITS = [
  ['m2', 'm²'],
  ['litre', 'litre'],
  ['roll', 'roll'],
  ['box', 'box'],
  ['piece', 'piece'],
  ['metre', 'metre'],
] as const;

/** Stands where something has not been said yet. */
const ASK = ['', 'choose…'] as const;

/** A finish of one's own: from a colour, from a picture, or by changing a shipped one. */
export function OwnFinish() {
  const { from } = useFinishing();
  const project = useStudio((s) => s.project);
  const { units, run, say } = useEdit();
  const [own, setOwn] = useState<Finish>(() => {
    if (from && Object.hasOwn(project.finishes, from)) return project.finishes[from];
    const base = from ? finishIn(project, from) : shipped('own', 'Own colour', 'Paint', FIRST_COLOURS.own);
    return { ...base, id: newId('finish'), name: from ? `${base.name}, own` : base.name, supplier: '', code: '', price: from ? base.price : 0, bare: false };
  });
  const [making, setMaking] = useState(false);
  // Of one that begins with a colour alone nothing is taken for granted: what it is and how it is sold is asked.
  const [asked, setAsked] = useState<readonly ('category' | 'unit')[]>(from ? [] : ['category', 'unit']);
  const [coat, setCoat] = useState<string>(FIRST_COLOURS.coat);
  const preview = useSample(own, 'tiles', 416, 232);
  // From the latest: a picture may arrive after something else was typed.
  const set = (values: Partial<Finish>): void => setOwn((latest) => ({ ...latest, ...values }));
  const setColour = (colour: string): void => set({ colour });
  const answer = <K extends 'category' | 'unit'>(key: K, value: Finish[K]): void => {
    set({ [key]: value });
    setAsked(asked.filter((a) => a !== key));
  };
  const put = (): boolean => {
    if (asked.length) {
      say(`${own.name} was not kept yet: say ${asked.map((a) => (a === 'category' ? 'of what kind it is' : 'how it is sold')).join(' and ')}.`);
      return false;
    }
    return run('finish.put', own);
  };
  const keep = (): void => {
    if (!put()) return;
    close();
    takeFinish(own.id);
  };
  const wood = ['timber', 'boards', 'ribs'].includes(own.body.kind);
  const paint = nearest(
    meanHex(own),
    offered.filter((f) => f.category === 'Paint'),
  )[0];
  const gloss = glossOf(own);
  const fields: Field[] = [
    { kind: 'text', label: 'Name', aria: 'Name of the finish', value: own.name, set: (name) => (name.trim() ? set({ name: name.trim() }) : false) },
    {
      kind: 'choice',
      label: 'Kind',
      value: asked.includes('category') ? '' : own.category,
      options: [...(asked.includes('category') ? [ASK] : []), ...CATEGORIES.map((c) => [c, c] as const)],
      set: (c) => void (c && answer('category', c as Category)),
    },
    {
      kind: 'choice',
      label: 'Gloss',
      value: sheenOf(gloss),
      options: SHEENS.map(({ name }) => [name, name] as const),
      set: (v) => set({ roughness: roughnessFor(SHEENS.find((s) => s.name === v)!.about, own.ior, own.metalness) }),
    },
    {
      kind: 'number',
      label: 'Gloss units',
      aria: 'Gloss units at 60°',
      value: Math.round(gloss * 10) / 10,
      min: 0,
      max: 1000,
      set: (units) => set({ roughness: roughnessFor(units, own.ior, own.metalness) }),
    },
    {
      kind: 'choice',
      label: 'Metal',
      value: own.metalness > 0.5 ? 'yes' : 'no',
      options: [
        ['no', 'no'],
        ['yes', 'bare metal'],
      ],
      set: (v) => set({ metalness: v === 'yes' ? 1 : 0 }),
    },
    own.sheen > 0 || ['Cloth', 'Carpet'].includes(own.category)
      ? {
          kind: 'choice',
          label: 'Sheen of cloth',
          value: wordOf(CLOTH_SHEENS, own.sheen),
          options: CLOTH_SHEENS.map(([name]) => [name, name] as const),
          set: (name) => set({ sheen: valueOf(CLOTH_SHEENS, name) }),
        }
      : null,
    {
      kind: 'choice',
      label: 'Passes light',
      value: passingOf(own),
      options: Object.entries(PASSINGS),
      set: (v) => set(withPassing(own, v as Passing)),
    },
    own.transmission > 0
      ? { kind: 'number', label: 'Clear, %', value: own.transmission, scale: 100, min: 1, max: 100, set: (transmission) => set({ transmission }) }
      : null,
    own.translucency > 0
      ? { kind: 'number', label: 'Scattered, %', value: own.translucency, scale: 100, min: 1, max: 100, set: (translucency) => set({ translucency }) }
      : null,
    own.opacity < 1
      ? {
          kind: 'number',
          label: 'Open, %',
          aria: 'Open between its threads, %',
          value: 1 - own.opacity,
          scale: 100,
          min: 1,
          max: 98,
          set: (open) => set({ opacity: 1 - open }),
        }
      : null,
    own.transmission > 0 ? { kind: 'number', label: 'Refractive index', value: own.ior, min: 1, max: 3, set: (ior) => set({ ior }) } : null,
    own.body.kind === 'flat' || own.body.kind === 'image'
      ? null
      : {
          kind: 'choice',
          label: 'Relief',
          value: wordOf(RELIEFS, own.relief),
          options: RELIEFS.map(([name]) => [name, name] as const),
          set: (name) => set({ relief: valueOf(RELIEFS, name) }),
        },
    own.laying ? { kind: 'length', label: 'Unit, long', value: own.laying.width, set: (width) => set({ laying: { ...own.laying!, width } }) } : null,
    own.laying ? { kind: 'length', label: 'Unit, high', value: own.laying.height, set: (height) => set({ laying: { ...own.laying!, height } }) } : null,
    own.laying ? { kind: 'length', label: 'Joint', value: own.laying.joint, set: (joint) => set({ laying: { ...own.laying!, joint } }) } : null,
    own.body.kind === 'flat'
      ? null
      : {
          kind: 'length',
          label: 'Repeats after',
          value: own.size.width,
          set: (width) => set({ size: { width, height: (own.size.height * width) / own.size.width } }),
        },
    {
      kind: 'text',
      label: 'LRV',
      value: own.reflectance === null ? `(${finishLrv(own).toFixed(1)})` : String(own.reflectance),
      set: (text) => {
        const v = Number(text);
        if (!text.trim() || text.startsWith('(')) return void set({ reflectance: null });
        if (!Number.isFinite(v) || v < 0 || v > 100) {
          say(`“${text}” was not taken: a light reflectance value is a number from 0 to 100, or nothing to leave it to the colour.`);
          return false;
        }
        set({ reflectance: v });
      },
    },
    { kind: 'text', label: 'Supplier', value: own.supplier, set: (supplier) => set({ supplier }) },
    { kind: 'text', label: 'Code', value: own.code, set: (code) => set({ code }) },
    {
      kind: 'choice',
      label: 'Sold by',
      value: asked.includes('unit') ? '' : own.unit,
      options: [...(asked.includes('unit') ? [ASK] : []), ...UNITS],
      set: (unit) => void (unit && answer('unit', unit as Finish['unit'])),
    },
    { kind: 'number', label: 'Price', value: own.price, min: 0, max: 1e6, set: (price) => set({ price }) },
    own.unit === 'm2' || asked.includes('unit')
      ? null
      : { kind: 'number', label: 'Covers, m²', value: own.coverage, min: 0.001, max: 1000, set: (coverage) => set({ coverage }) },
    { kind: 'number', label: 'Waste, %', value: own.waste, scale: 100, min: 0, max: 100, set: (waste) => set({ waste }) },
  ];
  return (
    <Sheet
      title="A finish of one’s own"
      width={640}
      actions={
        <>
          <Button
            size="small"
            disabled={making}
            onClick={() => {
              if (put()) void keepInLibrary({ kind: 'finish', name: own.name, data: own });
            }}
          >
            Keep for other projects
          </Button>
          <Button size="small" variant="contained" disabled={making} onClick={keep}>
            Keep and take in hand
          </Button>
        </>
      }
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: '250px 1fr', gap: 2 }}>
        {/* What it looks like stays in view while it is changed. */}
        <Box sx={{ position: 'sticky', top: 0, alignSelf: 'start' }}>
          <Box
            sx={{
              height: 140,
              bgcolor: meanHex(own),
              backgroundImage: preview ? `url(${preview})` : 'none',
              backgroundSize: 'cover',
              border: `1px solid ${colours.edge}`,
            }}
          />
          <Box sx={{ mt: 1, display: 'flex', alignItems: 'center', gap: 1 }}>
            <Box component="span" sx={{ color: colours.third, width: 42 }}>
              Colour
            </Box>
            <input type="color" value={own.colour} aria-label="Colour of the finish" onChange={(e) => setColour(e.target.value)} />
            <TextField
              label="Colour as a number"
              value={own.colour}
              onCommit={(text) => {
                const hex = text.trim().toLowerCase().replace(/^#?/, '#');
                if (!/^#[0-9a-f]{6}$/.test(hex)) {
                  say(`“${text}” was not taken: a colour is six hexadecimal digits, for example 9aa48b.`);
                  return false;
                }
                setColour(hex);
              }}
            />
          </Box>
          {paint ? (
            <Box sx={{ color: colours.third, mt: 0.5 }}>
              Nearest paint: {paint.finish.name}, {nearnessOf(paint.deltaE)}
            </Box>
          ) : null}
          {wood ? (
            <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.75, mt: 1 }}>
              <Box component="span" sx={{ color: colours.third, width: 42 }}>
                Coat
              </Box>
              <input type="color" value={coat} aria-label="Colour of the coat" onChange={(e) => setCoat(e.target.value)} />
              <Button size="small" onClick={() => set(coated(own, 'stain', coat))}>
                Stain
              </Button>
              <Button size="small" onClick={() => set(coated(own, 'solid', coat))}>
                Paint over
              </Button>
            </Box>
          ) : null}
          <FromImage
            onMaking={setMaking}
            onMade={({ image, colour, ratio }) =>
              // Only what a picture shows is taken from it: its colours, and how high it is to its width.
              setOwn((latest) => ({
                ...latest,
                body: { kind: 'image', image },
                colour,
                size: { width: latest.size.width, height: Math.max(0.002, latest.size.width * ratio) },
                laying: null,
                relief: 0,
              }))
            }
          />
          <Box sx={{ mt: 1, color: colours.third }}>Meant for</Box>
          <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5 }}>
            {ROLES.map((role: Role) => (
              <Button
                key={role}
                size="small"
                aria-pressed={own.roles.includes(role)}
                onClick={() => set({ roles: own.roles.includes(role) ? own.roles.filter((r) => r !== role) : [...own.roles, role] })}
                sx={{ fontWeight: own.roles.includes(role) ? 650 : 400 }}
              >
                {role}
              </Button>
            ))}
          </Box>
        </Box>
        <Box>
          <FieldTable fields={fields} units={units} say={say} />
          <MakerRows finish={own} onSet={set} />
        </Box>
      </Box>
    </Sheet>
  );
}
