// What three.js keeps on the graphics card is given back by hand.

export function disposeOf(thing) {
  thing.traverse((part) => {
    part.geometry?.dispose();
    for (const material of [part.material].flat()) material?.dispose();
  });
}

// Empties a group for good.
export function emptied(group) {
  for (const child of [...group.children]) {
    group.remove(child);
    disposeOf(child);
  }
  return group;
}
