// What three.js keeps on the graphics card is given back by hand.

export function disposeOf(thing) {
  thing.traverse((part) => {
    part.geometry?.dispose();
    for (const material of [part.material].flat()) if (!material?.userData.isKept) material?.dispose();
  });
}

// A material that will be wanted again: with the last one of its kind its program goes too, and
// to compile that anew takes longer than to draw the picture.
export function kept(material) {
  material.userData.isKept = true;
  return material;
}

const materials = new Map();

// The one material of a name, made when it is first asked for.
export function materialOf(name, make) {
  if (!materials.has(name)) materials.set(name, kept(make()));
  return materials.get(name);
}

// Empties a group for good.
export function emptied(group) {
  for (const child of [...group.children]) {
    group.remove(child);
    disposeOf(child);
  }
  return group;
}
