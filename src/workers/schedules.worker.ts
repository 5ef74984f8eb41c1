import { expose } from 'comlink';
import { z } from 'zod';
import { Deriver } from '@/core/model/derive';
import { validateProject } from '@/core/project/commands';
import { scheduleLists } from '@/core/schedules/lists';
import { compareSchemes } from '@/core/schedules/schemes';

const List = z.enum(Object.keys(scheduleLists()) as [string, ...string[]]);

/** Schedules and comparisons that take longer than a frame, made off the page's own thread. */
const service = {
  rows: (project: unknown, list: string, phase: 'before' | 'after'): object[] =>
    scheduleLists()[List.parse(list)].rows(new Deriver().derive(validateProject(project), phase)),
  compare: (project: unknown, first: string, second: string) => compareSchemes(validateProject(project), first, second),
};

export type ScheduleService = typeof service;

expose(service);
