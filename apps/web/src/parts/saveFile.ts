import { fileName } from '@insidia/core';

/** Hands a file to the person who asked for it. */
export function saveFile(name: string, content: string | Blob, type = 'application/x-ndjson'): void {
  const blob = typeof content === 'string' ? new Blob([content], { type }) : content;
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = fileName(name);
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}
