// The activities of the bench. Each is one module that registers itself under its key, with
// `data` (what it adds to the page's component) and, as far as it has them, `enter`, `leave`,
// `hint`, `grab`, `click`, `hover`, `keys`, `shown` and `escape`, called with that component.
const known = new Map();

export const register = (key, activity) => known.set(key, activity);
export const activityOf = (key) => known.get(key) ?? {};
export const everyActivity = () => [...known.values()];

// Several parts as one component; unlike spreading, this keeps getters alive. No two parts may use
// one name: the later one would silently take the earlier one's place.
export const mixed = (...parts) => {
  const all = {};
  for (const part of parts)
    for (const [name, own] of Object.entries(Object.getOwnPropertyDescriptors(part))) {
      if (name in all) throw new Error(`Two parts of the bench use the name “${name}”.`);
      all[name] = own;
    }
  return Object.defineProperties({}, all);
};
