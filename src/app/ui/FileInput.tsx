import type { Ref } from 'react';

/** The browser’s own way to files, unseen; a button beside it presses it. The same file can be chosen twice in a row. */
export function FileInput({
  ref,
  name,
  accept,
  multiple,
  onFiles,
}: {
  ref: Ref<HTMLInputElement>;
  /** What tests know it by. */
  name: string;
  accept?: string;
  multiple?: boolean;
  /** At least one file. */
  onFiles: (files: [File, ...File[]]) => void;
}) {
  return (
    <input
      ref={ref}
      type="file"
      hidden
      data-testid={name}
      accept={accept}
      multiple={multiple}
      onChange={(e) => {
        const [first, ...others] = e.target.files ?? [];
        e.target.value = '';
        if (first) onFiles([first, ...others]);
      }}
    />
  );
}
