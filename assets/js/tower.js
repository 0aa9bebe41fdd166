// The layer tower: area against height, at the model's own height scale, and the layer slider.
import { colour } from "./colours.js";
import { grouped } from "./numbers.js";

const ns = "http://www.w3.org/2000/svg";
const make = (name, attributes, text) => {
  const node = document.createElementNS(ns, name);
  for (const [key, value] of Object.entries(attributes)) node.setAttribute(key, value);
  if (text !== undefined) node.textContent = text;
  return node;
};

const LEFT = 34;
const RIGHT = 22;

export class Tower {
  constructor(svg, onLayer, onFinding) {
    Object.assign(this, { svg, onLayer, onFinding, data: null, findings: [], layer: 0, scale: null, measure: "area_mm2" });
    svg.addEventListener("pointerdown", (e) => {
      if (!this.data || e.target.closest("[data-pin]")) return;
      svg.setPointerCapture(e.pointerId);
      this.dragging = true;
      this.#toPointer(e);
    });
    svg.addEventListener("pointermove", (e) => this.dragging && this.#toPointer(e));
    svg.addEventListener("pointerup", () => (this.dragging = false));
    svg.addEventListener("pointercancel", () => (this.dragging = false));
    svg.addEventListener("wheel", (e) => {
      e.preventDefault();
      this.onLayer(this.layer - Math.sign(e.deltaY) * (e.shiftKey ? 10 : 1));
    }, { passive: false });
    svg.addEventListener("click", (e) => {
      const pin = e.target.closest("[data-pin]");
      if (pin) this.onFinding(pin.dataset.pin);
    });
    new ResizeObserver(() => this.draw()).observe(svg);
  }

  setData(data, findings) {
    Object.assign(this, { data, findings });
    this.draw();
  }

  setMeasure(measure) {
    this.measure = measure;
    this.draw();
  }

  // The view's scale, or null where it shows heights from too steep an angle.
  setScale(scale) {
    const changed = JSON.stringify(scale) !== JSON.stringify(this.scale);
    this.scale = scale;
    if (changed) this.draw();
  }

  setLayer(layer) {
    this.layer = layer;
    this.#drawCut();
  }

  #top() {
    return this.data.count * this.data.layer_height_mm;
  }

  #fit() {
    const height = this.svg.clientHeight;
    const tall = this.#top();
    const own = { zero: height - 24, perMm: (height - 52) / tall, own: true };
    if (!this.scale) return own;
    const pixels = this.scale.perMm * tall;
    return pixels > 60 && pixels < 30 * height ? this.scale : own;
  }

  #y(z) {
    return this.used.zero - z * this.used.perMm;
  }

  #toPointer(event) {
    const y = event.clientY - this.svg.getBoundingClientRect().top;
    const z = (this.used.zero - y) / this.used.perMm;
    this.onLayer(Math.floor(z / this.data.layer_height_mm));
  }

  draw() {
    const { svg } = this;
    svg.replaceChildren();
    if (!this.data || !this.data.count) return;
    this.used = this.#fit();
    const { layer_height_mm: h, count } = this.data;
    const areas = this.data[this.measure];
    const width = svg.clientWidth;
    const height = svg.clientHeight;
    const most = areas.reduce((a, b) => Math.max(a, b), 1e-9);
    const x = (area) => LEFT + (area / most) * (width - LEFT - RIGHT);
    let path = `M${LEFT} ${this.#y(0)}`;
    for (let k = 0; k < count; k++) path += `L${x(areas[k]).toFixed(1)} ${this.#y(k * h).toFixed(2)}V${this.#y((k + 1) * h).toFixed(2)}`;
    svg.append(make("path", { d: `${path}H${LEFT}Z`, fill: colour("sand"), stroke: colour("ink"), "stroke-width": 1 }));
    svg.append(make("path", { d: `M${LEFT} ${Math.max(this.#y(this.#top()), 0)}V${Math.min(this.#y(0), height)}`, stroke: colour("ink") }));
    const gap = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100].find((step) => step * this.used.perMm > 22) ?? 200;
    for (let z = 0; z <= this.#top() + 1e-9; z += gap) {
      const y = this.#y(z);
      if (y < 8 || y > height) continue;
      svg.append(make("path", { d: `M${LEFT - 5} ${y}H${LEFT}`, stroke: colour("ink") }));
      svg.append(make("text", { x: LEFT - 7, y: y + 4, "font-size": 11, "text-anchor": "end", fill: colour("ink") }, String(Number(z.toFixed(1)))));
    }
    svg.append(make("text", { x: LEFT + 4, y: 14, "font-size": 11, fill: colour("faint") }, this.used.own ? "own scale, mm" : "mm"));
    svg.append(make("text", { x: width - 4, y: height - 6, "font-size": 11, "text-anchor": "end", fill: colour("faint") }, `${{ area_mm2: "widest", grip: "most", perimeter_mm: "longest" }[this.measure]} ${grouped(most, most < 10 ? 2 : 0)} ${{ area_mm2: "mm²", grip: "", perimeter_mm: "mm" }[this.measure]}`));
    for (const finding of this.findings.slice(0, 60)) {
      const y = this.#y(finding.z_mm);
      if (y < 0 || y > height) continue;
      const island = finding.kind === "island";
      const pin = make("g", { "data-pin": finding.id, class: "cursor-pointer" });
      pin.append(make("title", {}, `${finding.number}: ${finding.title}, z = ${finding.z_mm.toFixed(2)} mm`));
      pin.append(make("rect", { x: width - RIGHT, y: y - 7, width: RIGHT, height: 14, fill: "transparent" }));
      pin.append(make("path", {
        d: island ? `M${width - 18} ${y}V${y - 10}H${width - 6}V${y - 4}H${width - 18}` : `M${width - 18} ${y}L${width - 8} ${y - 5}V${y + 5}Z`,
        fill: island ? colour("ink") : colour("plum"), stroke: island ? colour("ink") : colour("plum"),
      }));
      svg.append(pin);
    }
    this.cut = make("g", { "pointer-events": "none" });
    svg.append(this.cut);
    this.#drawCut();
  }

  #drawCut() {
    if (!this.cut || !this.data?.count) return;
    const h = this.data.layer_height_mm;
    const z = (this.layer + 0.5) * h;
    const y = this.#y(z);
    this.cut.replaceChildren(
      make("path", { d: `M0 ${y}H${this.svg.clientWidth}`, stroke: colour("accent"), "stroke-width": 2 }),
      make("rect", { x: 0, y: y - 8, width: 31, height: 16, fill: colour("accent") }),
      make("text", { x: 29, y: y + 4, "font-size": 11, fill: "#fff", "text-anchor": "end" }, z.toFixed(z < 100 ? 2 : 1)),
    );
    this.svg.setAttribute("aria-valuemin", "0");
    this.svg.setAttribute("aria-valuemax", String(this.data.count - 1));
    this.svg.setAttribute("aria-valuenow", String(this.layer));
    this.svg.setAttribute("aria-valuetext", `layer ${this.layer}, z ${z.toFixed(2)} mm`);
  }
}
