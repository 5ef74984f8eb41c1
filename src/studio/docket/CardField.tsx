'use client';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import type { StockCard } from '@/core/stock/types';

/** A card of the stock, found by its name. */
export function CardField({
  label,
  options,
  value,
  placeholder,
  onChoose,
}: {
  label: string;
  options: readonly StockCard[];
  value: StockCard | null;
  placeholder: string;
  onChoose(card: StockCard | null): void;
}) {
  return (
    <Autocomplete
      size="small"
      options={options}
      value={value}
      onChange={(_, v) => onChoose(v)}
      getOptionLabel={(c) => c.name}
      getOptionKey={(c) => c.id}
      groupBy={(c) => c.item.category}
      renderInput={(params) => (
        <TextField
          {...params}
          variant="standard"
          placeholder={placeholder}
          slotProps={{ ...params.slotProps, htmlInput: { ...params.slotProps.htmlInput, 'aria-label': label } }}
        />
      )}
      onKeyDown={(e) => e.stopPropagation()}
      sx={{ '& .MuiInputBase-input': { fontSize: 12.5, p: '0 !important' } }}
    />
  );
}
