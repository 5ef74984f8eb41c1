import { expose } from 'comlink';
import { ResidentModel } from '@/core/resident/resident';

/** The model that counts, compares and finds off the page's own thread; it is fed by what changes. */
const service = new ResidentModel();

export type ModelService = typeof service;

expose(service);
