'use client';
import Box from '@mui/material/Box';
import { useEffect, useRef } from 'react';
import type { Model } from '@/core/model/model';
import { colours } from '../look/theme';
import { current } from '../table/model/ModelPane';
import { ModelScene } from '../table/model/ModelScene';
import { useStudio } from '../store/studio';
import { useLook, useShade } from '../views/views';

/** A view of a model from where the table's own view looks: it stands still while that one is used. */
export function Still({ model, label }: { model: Model; label: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const scene = useRef<ModelScene | null>(null);
  const level = useStudio((s) => s.level);
  const look = useLook((s) => s.look);
  useEffect(() => {
    const made = new ModelScene(canvas.current!);
    scene.current = made;
    const element = canvas.current!;
    const observer = new ResizeObserver(() => made.resize(element.clientWidth, element.clientHeight));
    observer.observe(element);
    return () => {
      observer.disconnect();
      made.dispose();
    };
  }, []);
  useEffect(() => {
    const made = scene.current;
    if (!made) return;
    made.level = level;
    made.room = current.scene?.room ?? null;
    made.setShade(useShade.getState().on);
    made.setLook(look);
    made.resize(canvas.current!.clientWidth, canvas.current!.clientHeight);
    made.setModel(model);
    if (current.scene) made.eye.like(current.scene.eye);
    else made.eye.fit();
  }, [model, level, look]);
  return (
    <Box sx={{ flex: '1.3 1 0', minHeight: 0, border: `1px solid ${colours.hairline}`, bgcolor: colours.table, position: 'relative' }}>
      <canvas ref={canvas} aria-label={label} style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', display: 'block' }} />
    </Box>
  );
}
