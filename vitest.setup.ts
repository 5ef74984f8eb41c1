import fc from 'fast-check';

// The same random cases at every run, so that a failure means a change; FC_SEED explores others.
fc.configureGlobal({ seed: Number(process.env.FC_SEED ?? 20261124) });
