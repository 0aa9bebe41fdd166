// What a ray meets first: a tree of boxes over the facets, made beside the page where there are many.
import { MeshBVH } from "three-mesh-bvh";
import { start } from "../stage.js";

// Up to so many facets the tree is made at once; it takes about a second a million.
const AT_ONCE = 150_000;

// Gives the geometry its tree; until it is there, every facet is looked at.
export function prepareToPick(geometry) {
  const corners = geometry.attributes.position.array;
  // Indirect: the order of the facets stays the server's.
  if (corners.length <= 9 * AT_ONCE) {
    geometry.boundsTree = new MeshBVH(geometry, { indirect: true });
    return;
  }
  const worker = new Worker(start.urls.pick_worker, { type: "module" });
  geometry.addEventListener("dispose", () => worker.terminate());
  worker.onmessage = ({ data }) => {
    geometry.boundsTree = MeshBVH.deserialize(data, geometry, { setIndex: false });
    worker.terminate();
  };
  worker.postMessage(corners);
}
