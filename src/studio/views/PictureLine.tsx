'use client';
import Box from '@mui/material/Box';
import { Line } from '../errands/ErrandList';
import { useStudio } from '../store/studio';
import { useQueue } from './queue/queue';
import { standing } from './RenderPanel';

/** The picture that is being made beside one’s work, in every stage but where it is seen anyway. */
export function PictureLine() {
  const live = useQueue((s) => s.live);
  const orders = useQueue((s) => s.orders);
  const looked = useQueue((s) => s.looked);
  const views = useStudio((s) => s.stage === 'Views');
  if (!live || views || looked === live.order.id) return null;
  const more = orders.filter((o) => o.state === 'waiting').length - 1;
  const { name } = live.order.stamp;
  return (
    <Box component="ul" aria-label="Pictures under way" sx={{ m: 0, p: 0, listStyle: 'none', minWidth: 0 }}>
      <Line
        title={name}
        at={`${standing(live.order, live, 0)}${more > 0 ? `; ${more} more` : ''}`}
        share={live.samples / live.order.samples}
        stop="Look at"
        onStop={() => {
          useStudio.getState().setStage('Views');
          useQueue.getState().look(live.order.id);
        }}
      />
    </Box>
  );
}
