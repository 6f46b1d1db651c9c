/** Evaluates what was typed: a number, or a number changed by "+4", "-4", "*1.1", "/2" after it. */
export function readNumber(text: string): number | undefined {
  const match = /^\s*([+-]?\d+(?:\.\d+)?)\s*(?:([-+*/])\s*(\d+(?:\.\d+)?))?\s*$/.exec(
    text.replace(/−/g, '-').replace(',', '.'),
  );
  if (!match) return undefined;
  const a = Number(match[1]);
  const b = Number(match[3] ?? 0);
  switch (match[2]) {
    case '+':
      return a + b;
    case '-':
      return a - b;
    case '*':
      return a * b;
    case '/':
      return b === 0 ? undefined : a / b;
    default:
      return a;
  }
}
