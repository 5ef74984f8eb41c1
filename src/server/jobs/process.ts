import { DomainError } from '@/core/project/errors';
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
      if (error instanceof DomainError) reply({ id, kind: 'refused', code: error.code, message: error.message, ids: error.ids });
      else reply({ id, kind: 'failed', text: error instanceof Error ? (error.stack ?? error.message) : String(error) });
    }
  })();
});
process.on('disconnect', () => process.exit());
// An interrupt at the terminal goes to the server, which ends this process itself.
process.on('SIGINT', () => undefined);
