// The disc of all directions of down, shaded by a goal. Draws what the server scored.
import { colour } from "../colours.js";

const INK = colour("ink");
const ACCENT = colour("accent");
const PALE = [255, 253, 248];
const DEEP = [58, 72, 106];
const PIXELS = 256;
const SIZE = 256; // of the canvas on the page, in CSS pixels
const MARK = 8;
const RADIUS = SIZE / 2 - 9; // of the disc, so that marks at its rim are seen whole

// Paler is better; t from 0 to 1.
export function shadeOf(t) {
  const s = Math.min(Math.max(t, 0), 1);
  return PALE.map((v, i) => Math.round(v + s * (DEEP[i] - v)));
}

export class TurnMap {
  // stands: what marks the present stance, above the canvas; places are from -1 to 1, up is +Y
  constructor(canvas, stands, { onMove, onPick, onHover }) {
    Object.assign(this, { canvas, stands, onMove, onPick, onHover, cells: null, values: null, marks: [], present: [0, 0], cursor: null });
    canvas.addEventListener("pointerdown", (e) => {
      if (e.button !== 0 || !this.#cell(this.#at(e), MARK)) return;
      canvas.setPointerCapture(e.pointerId);
      this.held = true;
      this.#moved(e);
    });
    canvas.addEventListener("pointermove", (e) => (this.held ? this.#moved(e) : this.#hovered(e)));
    canvas.addEventListener("pointerup", (e) => {
      if (!this.held) return;
      this.held = false;
      const cell = this.#cell(this.#at(e), MARK);
      this.cursor = null;
      if (cell) this.onPick(cell);
    });
    canvas.addEventListener("pointercancel", () => {
      this.held = false;
      this.cursor = null;
      this.onMove(null);
    });
    canvas.addEventListener("pointerleave", () => !this.held && this.onHover(null));
    canvas.addEventListener("keydown", (e) => this.#key(e));
    canvas.addEventListener("blur", () => {
      if (this.keyed) this.onMove(null);
      this.keyed = false;
      this.cursor = null;
    });
  }

  setCells(cells) {
    this.cells = cells;
    this.picture = null;
  }

  // values: badness of every direction from 0 (best) to 1
  setShades(values) {
    this.values = values;
    this.picture = null;
    this.draw();
  }

  setMarks(present, marks) {
    this.marks = marks;
    this.setPresent(present);
    this.draw();
  }

  // Follows a turn: the picture stays, only its mark moves.
  setPresent(at) {
    this.present = at;
    this.stands.style.transform = `translate(${at[0] * RADIUS}px, ${-at[1] * RADIUS}px)`;
  }

  highlight(letter) {
    this.lit = letter;
    this.draw();
  }

  #at(event) {
    const box = this.canvas.getBoundingClientRect();
    return [(event.clientX - box.left - SIZE / 2) / RADIUS, (box.top + SIZE / 2 - event.clientY) / RADIUS];
  }

  // The direction under a place, and the mark that is meant where one is within reach.
  #cell([x, y], reach) {
    if (!this.cells) return null;
    const far = ({ at }) => RADIUS * Math.hypot(at[0] - x, at[1] - y);
    const meant = this.marks.filter((mark) => far(mark) < reach).sort((a, b) => far(a) - far(b))[0];
    const out = Math.hypot(x, y) / 0.995;
    if (out > 1) {
      if (!meant) return null;
      [x, y] = [x / out, y / out]; // a mark at the rim reaches beyond it
    }
    const column = Math.min(Math.floor(((x + 1) / 2) * PIXELS), PIXELS - 1);
    const row = Math.min(Math.floor(((1 - y) / 2) * PIXELS), PIXELS - 1);
    const index = this.cells[row * PIXELS + column];
    return index === 65535 ? null : { index, letter: meant?.letter ?? null, x, y };
  }

  #moved(event) {
    const cell = this.#cell(this.#at(event), MARK);
    if (!cell) return;
    this.cursor = [cell.x, cell.y];
    this.onMove(cell);
  }

  #hovered(event) {
    this.onHover(this.#cell(this.#at(event), MARK)?.index ?? null);
  }

  #key(event) {
    const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
    if (step) {
      event.preventDefault();
      event.stopPropagation();
      const size = event.shiftKey ? 0.1 : 0.03;
      const [x, y] = this.cursor ?? this.present;
      // Arrows also reach what lies beside a mark.
      const cell = this.#cell([x + size * step[0], y + size * step[1]], 0);
      if (!cell) return;
      this.cursor = [cell.x, cell.y];
      this.keyed = true;
      this.onMove(cell);
    } else if (event.key === "Enter" && this.cursor) {
      const cell = this.#cell(this.cursor, 0);
      this.cursor = null;
      this.keyed = false;
      if (cell) this.onPick(cell);
    }
  }

  #paint() {
    const picture = document.createElement("canvas");
    picture.width = picture.height = PIXELS;
    const context = picture.getContext("2d");
    const image = context.createImageData(PIXELS, PIXELS);
    const shades = Array.from(this.values, shadeOf);
    for (let i = 0; i < this.cells.length; i++) {
      const cell = this.cells[i];
      if (cell === 65535) continue;
      const [r, g, b] = shades[cell];
      image.data.set([r, g, b, 255], 4 * i);
    }
    context.putImageData(image, 0, 0);
    this.picture = picture;
  }

  draw() {
    if (!this.cells || !this.values) return;
    if (!this.picture) this.#paint();
    const { canvas } = this;
    const context = canvas.getContext("2d");
    const size = canvas.width;
    const half = size / 2;
    const unit = size / SIZE;
    const radius = RADIUS * unit;
    const place = ([x, y]) => [half + x * radius, half - y * radius];
    context.clearRect(0, 0, size, size);
    context.drawImage(this.picture, half - radius, half - radius, 2 * radius, 2 * radius);
    context.strokeStyle = INK;
    context.lineWidth = unit;
    for (const [degrees, alpha] of [[45, 0.25], [90, 0.6], [135, 0.25], [180, 1]]) {
      context.globalAlpha = alpha;
      context.beginPath();
      context.arc(half, half, Math.sin((degrees * Math.PI) / 360) * radius, 0, 2 * Math.PI);
      context.stroke();
    }
    context.globalAlpha = 1;
    for (const { letter, at } of this.marks) {
      const [x, y] = place(at);
      const lit = letter === this.lit;
      context.fillStyle = lit ? ACCENT : INK;
      context.beginPath();
      context.arc(x, y, (lit ? MARK + 2 : MARK) * unit, 0, 2 * Math.PI);
      context.fill();
      context.strokeStyle = colour("sheet");
      context.stroke();
      context.fillStyle = "#fff";
      context.font = `${11 * unit}px "Source Sans 3", sans-serif`;
      context.textAlign = "center";
      context.textBaseline = "middle";
      context.fillText(letter, x, y + 0.5 * unit);
    }
  }
}
