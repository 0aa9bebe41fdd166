// Numbers as text. A format is made once: making one costs more than all that is written with it.
const formats = new Map();

export function withDigits(value, least, most) {
  const name = `${least},${most}`;
  if (!formats.has(name)) formats.set(name, new Intl.NumberFormat("en", { minimumFractionDigits: least, maximumFractionDigits: most }));
  return formats.get(name).format(value);
}

export const grouped = (value, digits = 0) => withDigits(value, digits, digits);
