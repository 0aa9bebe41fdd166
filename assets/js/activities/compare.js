// Compare is a page of its own: coming to it goes there.
import { register } from "./register.js";

register("compare", {
  goesTo: (bench) => bench.compareUrl,
});
