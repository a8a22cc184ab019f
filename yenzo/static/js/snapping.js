// Snapping: the corners of something, its area and what else lies there come in; by how much it is drawn to a line of
// these, and the lines, go out. All in mm of the area.

const span = (corners, axis) => {
  const values = corners.map((corner) => corner[axis]);
  const low = Math.min(...values), high = Math.max(...values);
  return { low, middle: (low + high) / 2, high };
};
const long = (words) => `${words.toFixed(1)} mm`;

// Lines along one axis that something's beginning, middle or end may be drawn to: the area's, and those of others.
function linesOf(axis, length, safe, size, others) {
  const lines = [{ at: length / 2, to: ["middle"] }];
  // What is larger than its area covers it, and has no edges in it.
  if (size < length) lines.push({ at: safe, to: ["low"] }, { at: length - safe, to: ["high"] });
  for (const box of others) {
    for (const at of [box[axis], (box[axis] + box[axis + 2]) / 2, box[axis + 2]]) lines.push({ at, to: ["low", "middle", "high"] });
  }
  return lines;
}

// Places between, or beyond, two others that leave equal gaps.
function gapsOf(axis, size, others) {
  const gaps = [], sorted = [...others].sort((one, other) => one[axis] - other[axis]);
  for (let first = 0; first < sorted.length; first += 1) {
    for (let second = first + 1; second < sorted.length; second += 1) {
      const a = sorted[first], b = sorted[second], free = b[axis] - a[axis + 2];
      if (free >= size) gaps.push({ at: (a[axis + 2] + b[axis]) / 2, to: ["middle"], gap: (free - size) / 2 });
      if (free > 0) {
        gaps.push({ at: b[axis + 2] + free, to: ["low"], gap: free });
        gaps.push({ at: a[axis] - free, to: ["high"], gap: free });
      }
    }
  }
  return gaps;
}

export function snapped(corners, frame, others, within) {
  const by = [0, 0], lines = [];
  for (const axis of [0, 1]) {
    const own = span(corners, axis), length = axis ? frame.height : frame.width;
    let best = null;
    for (const line of [...linesOf(axis, length, frame.safe, own.high - own.low, others), ...gapsOf(axis, own.high - own.low, others)]) {
      for (const end of line.to) {
        const off = line.at - own[end];
        if (Math.abs(off) <= within && (!best || Math.abs(off) < Math.abs(best.off) - 1e-9)) best = { off, ...line };
      }
    }
    if (!best) continue;
    by[axis] = best.off;
    const across = axis ? frame.width : frame.height;
    const line = axis ? [[0, best.at], [across, best.at]] : [[best.at, 0], [best.at, across]];
    lines.push({ line, words: best.gap === undefined ? long(best.at) : `${long(best.gap)} = ${long(best.gap)}` });
  }
  return { by, lines };
}
