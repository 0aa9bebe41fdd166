// Prepares picking for a large model away from the page: what a ray meets, as a tree of boxes.
import { BufferAttribute, BufferGeometry } from "three";
import { MeshBVH } from "three-mesh-bvh";

onmessage = ({ data: corners }) => {
  const geometry = new BufferGeometry();
  geometry.setAttribute("position", new BufferAttribute(corners, 3));
  const tree = MeshBVH.serialize(new MeshBVH(geometry, { indirect: true }), { cloneBuffers: false });
  postMessage(tree, [...tree.roots, tree.indirectBuffer.buffer].map((part) => part.buffer ?? part));
};
