import { type Result, refused, success } from '../../core/base/result';
import { textOf } from '../../core/base/text';

/**
 * The text of a file that was chosen, with lines ended alike; `note` says where its letters had to be guessed. `kind` names what
 * the file is to be (“a word list”), `most` how many bytes that may have. A larger file and one that is no text are refused.
 */
export async function readTextFile(
  file: File,
  kind: string,
  most: number,
): Promise<Result<{ text: string; note: string | undefined }>> {
  if (file.size > most) return refused(`${file.name} is larger than ${kind} can be.`);
  const { text, note } = textOf(new Uint8Array(await file.arrayBuffer()), file.name);
  if (text.includes('\u0000')) return refused(`${file.name} is not a text file.`);
  return success({ text: text.replace(/\r\n?/g, '\n'), note });
}
