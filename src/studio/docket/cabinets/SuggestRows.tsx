'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import { derivedOf } from '@/core/model/model';
import { SUGGESTIONS, suggested, type Suggestion } from '@/core/placing/suggestions';
import type { Piece, Run } from '@/core/project/schema';
import { counted } from '@/core/units/text';
import { FieldTable } from '../../look/FieldTable';
import { newId, useStudio } from '../../store/studio';
import { useEdit } from '../parts';

/** What can be put to a run besides: shown when it is chosen, to be taken or left. */
export function SuggestRows({ run }: { run: Run }) {
  const { units, run: edit, say } = useEdit();
  const [offer, setOffer] = useState<{ what: Suggestion; pieces: Piece[] } | null>(null);
  useEffect(() => () => useStudio.getState().endPreview(), []);
  const leave = (): void => {
    useStudio.getState().endPreview();
    setOffer(null);
  };
  const show = (what: Suggestion): void => {
    leave();
    const { model, preview } = useStudio.getState();
    const derived = derivedOf(model, 'runs').find((r) => r.id === run.id);
    const pieces = derived ? suggested(model, derived, what, () => newId('piece')) : 'The run is not laid out.';
    if (typeof pieces === 'string') return say(`Nothing is suggested. ${pieces}`);
    const refusal = preview('piece.add', { pieces });
    if (refusal) return say(refusal);
    setOffer({ what, pieces });
  };
  return (
    <>
      <FieldTable
        units={units}
        say={say}
        fields={[
          {
            kind: 'choice',
            label: 'Suggest',
            aria: 'Suggest for this run',
            value: offer?.what ?? '',
            options: [['', 'what goes with it …'], ...SUGGESTIONS.map((s) => [s, s] as const)],
            set: (v) => (v ? show(v as Suggestion) : leave()),
          },
        ]}
      />
      {offer ? (
        <Box sx={{ display: 'flex', gap: 0.75, my: 0.5 }}>
          <Button
            size="small"
            variant="contained"
            onClick={() => {
              leave();
              edit('piece.add', { pieces: offer.pieces });
            }}
          >
            Take {counted(offer.pieces.length, 'thing')}
          </Button>
          <Button size="small" onClick={leave}>
            Leave them
          </Button>
        </Box>
      ) : null}
    </>
  );
}
