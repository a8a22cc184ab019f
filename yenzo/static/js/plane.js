// The plane in mm, x to the right and y down: affine maps as [a, b, c, d, e, f], points and polygons.

export const parse = (words) => words.split(" ").map(Number);
export const written = (map) => `matrix(${map.map((value) => value.toFixed(6)).join(" ")})`;
export const apply = ([a, b, c, d, e, f], x, y) => [a * x + c * y + e, b * x + d * y + f];
export const isNear = (one, other) => one.every((value, at) => Math.abs(value - other[at]) < 1e-9);

// The map that applies the first one, and then the second.
export function compose(first, then) {
  const [a, b, c, d, e, f] = first, [p, q, r, s, t, u] = then;
  return [p * a + r * b, q * a + s * b, p * c + r * d, q * c + s * d, p * e + r * f + t, q * e + s * f + u];
}

export function inverse([a, b, c, d, e, f]) {
  const area = a * d - b * c;
  return [d / area, -b / area, -c / area, a / area, (c * f - d * e) / area, (b * e - a * f) / area];
}

// Turned clockwise and scaled about a point.
export function about(x, y, degrees, scale) {
  const cosine = scale * Math.cos((degrees * Math.PI) / 180), sine = scale * Math.sin((degrees * Math.PI) / 180);
  return compose([1, 0, 0, 1, -x, -y], compose([cosine, sine, -sine, cosine, 0, 0], [1, 0, 0, 1, x, y]));
}

// The point of a convex polygon that is nearest to another one.
export function nearest(polygon, point) {
  let best = null, least = Infinity, ways = new Set();
  polygon.forEach((corner, at) => {
    const next = polygon[(at + 1) % polygon.length];
    const [ux, uy] = [next[0] - corner[0], next[1] - corner[1]], [px, py] = [point[0] - corner[0], point[1] - corner[1]];
    ways.add(Math.sign(ux * py - uy * px));
    const length = ux * ux + uy * uy, share = length ? Math.min(Math.max((px * ux + py * uy) / length, 0), 1) : 0;
    const on = [corner[0] + share * ux, corner[1] + share * uy], far = Math.hypot(point[0] - on[0], point[1] - on[1]);
    if (far < least) [best, least] = [on, far];
  });
  return ways.has(1) && ways.has(-1) ? best : point;
}
