'use client';
import { Choice } from '../look/Choice';
import { useStudio } from '../store/studio';

/** Whether outlines are drawn as rectangles or corner by corner. */
export function OutlineWay() {
  const outline = useStudio((s) => s.pen.outline);
  return (
    <Choice
      label="Outlines"
      value={outline}
      options={[
        ['corners', 'corner by corner'],
        ['rectangle', 'as rectangles'],
      ]}
      onChoose={(v) => useStudio.setState({ pen: { ...useStudio.getState().pen, outline: v } })}
    />
  );
}
