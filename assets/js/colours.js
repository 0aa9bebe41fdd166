// The colours of drawings, said once: in the style sheet, as custom properties.
const style = getComputedStyle(document.documentElement);

// A colour of the style sheet, "ink" for --color-ink, as text.
export const colour = (name) => style.getPropertyValue(`--color-${name}`).trim();

// The same as a number, for three.js.
export const hex = (name) => parseInt(colour(name).slice(1), 16);

// The same as three parts of 1, for shaders.
export const parts = (name) => [16, 8, 0].map((shift) => ((hex(name) >> shift) & 255) / 255);
