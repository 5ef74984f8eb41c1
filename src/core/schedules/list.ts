import type { Model } from '../model/model';

/** What a column of a schedule holds, which decides how it is written. */
export type ColumnKind = 'text' | 'figure' | 'length' | 'area' | 'count' | 'degrees' | 'volume' | 'cloth' | 'money' | 'lrv' | 'share';

export interface Column {
  key: string;
  title: string;
  kind: ColumnKind;
  /** Summed up in the last row. */
  sum?: boolean;
}

export interface ScheduleList {
  title: string;
  /** What it holds, when it is empty. */
  empty: string;
  /** What its figures hold, where that is not plain. */
  note?: string;
  columns: Column[];
  rows(model: Model): object[];
}
