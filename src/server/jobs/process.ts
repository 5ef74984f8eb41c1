import { DomainError } from '@/core/project/errors';
import { faultOf } from '../store/faults';
import { TASK_WORK } from './work';
import type { Call, Reply } from './tasks';

/** The process that heavy work runs in: one call after another, until the server lets go of it. */
const reply = (message: Reply): void => void process.send!(message);

process.on('message', (call: Call) => {
  void (async () => {
    const { id } = call;
    try {
      const result = await TASK_WORK[call.task](call.given as never, (share, at) => reply({ id, kind: 'progress', progress: { share, at } }));
      reply({ id, kind: 'done', result });
    } catch (error) {
      // A full disk is met here too; what is merely not there has been named by the task.
      const fault = faultOf(error);
      const refusal = fault && fault.code !== 'store.gone' ? fault : error;
      if (refusal instanceof DomainError) reply({ id, kind: 'refused', code: refusal.code, message: refusal.message, ids: refusal.ids });
      else reply({ id, kind: 'failed', text: error instanceof Error ? (error.stack ?? error.message) : String(error) });
    }
  })();
});
process.on('disconnect', () => process.exit());
// An interrupt at the terminal goes to the server, which ends this process itself.
process.on('SIGINT', () => undefined);
