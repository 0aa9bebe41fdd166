import "./inspect.js";
import "./turn.js";
import "./split.js";
import "./reshape.js";
import "./prop.js";
import "./compare.js";
import "./hand_over.js";

export * from "./register.js";
