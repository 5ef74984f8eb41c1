'use client';
import Box from '@mui/material/Box';
import ListSubheader from '@mui/material/ListSubheader';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { colours } from './theme';

/** A named choice among a few, on one line. */
export function Choice<const T extends string>({
  label,
  value,
  options,
  onChoose,
  bare,
  groups,
}: {
  label: string;
  value: NoInfer<T>;
  options: readonly (readonly [T, string])[];
  onChoose(value: NoInfer<T>): void;
  /** Leave the name to what stands beside it. */
  bare?: boolean;
  /** Headings over some of the options, by the option each stands before. */
  groups?: Readonly<Partial<Record<NoInfer<T>, string>>>;
}) {
  return (
    <Box
      sx={{ display: 'flex', alignItems: 'baseline', gap: 0.75, whiteSpace: 'nowrap', minWidth: 0, flexShrink: bare ? 1 : 0, width: bare ? '100%' : undefined }}
    >
      {bare ? null : <span>{label}</span>}
      <Select
        variant="standard"
        disableUnderline
        displayEmpty
        fullWidth={bare}
        value={value}
        onChange={(e) => onChoose(e.target.value as NoInfer<T>)}
        inputProps={{ 'aria-label': label }}
        sx={{ fontSize: bare ? 12.5 : 12, color: colours.ink, '& .MuiSelect-select': { py: 0, minWidth: '0 !important' } }}
      >
        {options.flatMap(([key, name]) => [
          groups?.[key] ? (
            <ListSubheader key={`over ${key}`} sx={{ lineHeight: '26px', fontSize: 11.5, color: colours.third }}>
              {groups[key]}
            </ListSubheader>
          ) : null,
          <MenuItem key={key} value={key}>
            {name}
          </MenuItem>,
        ])}
      </Select>
    </Box>
  );
}

export const STATUS_NAMES = [
  ['existing', 'existing'],
  ['removed', 'to be removed'],
  ['new', 'new'],
] as const;
