// Builds styles and scripts into src/fairstand/static, and notes what they were built of.
import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { copyFileSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { build } from "esbuild";

const vendor = "src/fairstand/static/vendor";
const built = "src/fairstand/static/built";
mkdirSync(vendor, { recursive: true });
mkdirSync(built, { recursive: true });

const common = { bundle: true, format: "esm", minify: true, legalComments: "none", logLevel: "warning" };
// A page is one script: forty modules take a fifth of a second more to come one after another.
for (const page of ["bench", "compare", "library", "work_line"])
  await build({ ...common, entryPoints: [`assets/js/${page}.js`], alias: { alpinejs: "@alpinejs/csp" }, outfile: `${built}/${page}.js` });
await build({ ...common, entryPoints: ["assets/pick_worker.js"], outfile: `${built}/pick_worker.js` });
copyFileSync(
  "node_modules/@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2",
  `${vendor}/source-sans-3.woff2`,
);
const licences = [
  ["three", "LICENSE"],
  ["three-mesh-bvh", "LICENSE"],
  ["@fontsource-variable/source-sans-3", "LICENSE"],
];
for (const [name, file] of licences)
  copyFileSync(`node_modules/${name}/${file}`, `${vendor}/LICENSE.${name.split("/").pop()}.txt`);
writeFileSync(
  `${vendor}/LICENSE.alpinejs.txt`,
  "Alpine.js\n\nMIT License\n\nCopyright © 2019-2025 Caleb Porzio and contributors\n\n" +
    readFileSync("node_modules/three/LICENSE", "utf8").split("\n").slice(4).join("\n"),
);
const colours = JSON.parse(readFileSync("src/printability/colours.json", "utf8"));
writeFileSync("assets/colours.css", [
  "/* Made of the core's colours by tools/build_assets.mjs. */", "@theme static {",
  ...Object.entries(colours).map(([name, value]) => `  --color-${name}: ${value};`), "}", "",
].join("\n"));
execFileSync("node_modules/.bin/tailwindcss", ["-i", "assets/app.css", "-o", `${built}/app.css`, "--minify"], {
  stdio: ["ignore", "ignore", "inherit"],
});

// The stamp lets the tests see, without Node, that what is committed was built of what is committed.
const walk = (folder) =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? walk(path) : [path];
  });
const inputs = [
  "package-lock.json",
  "tools/build_assets.mjs",
  "assets/app.css",
  "assets/pick_worker.js",
  ...walk("assets/js"),
  "src/printability/colours.json",
  ...walk("src/fairstand").filter((path) => path.endsWith(".html")),
];
const outputs = [...walk(vendor), ...walk(built).filter((path) => !path.endsWith("stamp.json"))];
const digest = (paths) => {
  const hash = createHash("sha256");
  for (const path of paths.map((p) => p.replaceAll("\\", "/")).sort())
    hash.update(path + "\n").update(createHash("sha256").update(readFileSync(path)).digest("hex") + "\n");
  return hash.digest("hex");
};
writeFileSync(`${built}/stamp.json`, JSON.stringify({ inputs: digest(inputs), outputs: digest(outputs) }, null, 2) + "\n");
