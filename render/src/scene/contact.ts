import { GOLDEN_ANGLE } from '@eskovan/core/geometry';
/** Ways that are looked along from every point. */
export const CONTACT_WAYS = 20;
/** How far away something may be and still shade a corner, metres. The bake knows what is farther. */
const REACH = 0.4;
/** Farther away a corner is smaller than it is dark, metres. */
const FARTHEST = 30;
/** Long ways are few, and each alone would draw a line along a corner: the longest counts for so much less. */
const LONG_LESS = 0.8;
/** How far behind something a way ends that is wholly blocked, as a part of its length. */
const SOFT = 0.45;
/** Share of a corner's light that is taken where every way is blocked: the bake has taken some of it already. */
const STRENGTH = 0.7;

/**
 * Evenly spread directions and how far to look along each, four numbers a way: directions along a spiral of golden
 * angles over half a sphere, the other half being their opposites (Swinbank & Purser 2006, "Fibonacci grids"), lengths
 * by the plastic number, which keeps them apart from the turns; more of them are short.
 */
export function contactWays(): Float32Array {
  const ways = new Float32Array(4 * CONTACT_WAYS);
  for (let n = 0; n < CONTACT_WAYS; n += 1) {
    const height = (n + 0.5) / CONTACT_WAYS;
    const turn = n * GOLDEN_ANGLE;
    const ring = Math.sqrt(Math.max(0, 1 - height * height));
    const part = (0.5 + n * 0.7548776662466927) % 1;
    ways.set([ring * Math.cos(turn), ring * Math.sin(turn), height, REACH * (0.12 + 0.88 * part * part)], 4 * n);
  }
  return ways;
}

/** What all ways count for where all are blocked: cosines average to a half. */
const SHARE = contactWays()
  .filter((_, i) => i % 4 === 3)
  .reduce((sum, length) => sum + 0.5 * (1 - (LONG_LESS * length) / REACH), 0);

export const CONTACT_VERTEX = `
  varying vec2 at;
  void main() {
    at = uv;
    gl_Position = vec4(position.xy, 0.0, 1.0);
  }`;

/**
 * How open each point of the picture is to what lies just around it, 0…1. Source: Mittring 2007, "Finding next gen",
 * ambient occlusion from the picture's depth; here each way is turned to the surface's own side and weighed by its
 * cosine, and all pixels share the ways, so that there is no noise to be blurred away.
 */
export const CONTACT_FRAGMENT = `
  precision highp float;
  uniform sampler2D depthMap;
  uniform vec2 texel;
  // Of the projection: what makes a distance of a depth, and a point of a place in the picture and back.
  uniform vec3 range;
  uniform vec4 lens;
  // Unit vectors, and how far to look along each.
  uniform vec4 ways[${CONTACT_WAYS}];
  varying vec2 at;
  float distanceAt(vec2 where) { return range.x / (range.y - texture2D(depthMap, where).r * range.z); }
  vec3 pointAt(vec2 where, float away) {
    return vec3(away * (2.0 * where - 1.0 + lens.zw) / lens.xy, -away);
  }
  // The nearer of two neighbours is on the same surface.
  vec3 along(vec3 point, vec2 step, float before, float after) {
    vec3 ahead = pointAt(at + step, after) - point;
    vec3 behind = point - pointAt(at - step, before);
    return abs(ahead.z) < abs(behind.z) ? ahead : behind;
  }
  void main() {
    vec2 right = vec2(texel.x, 0.0);
    vec2 up = vec2(0.0, texel.y);
    vec4 around = vec4(distanceAt(at - right), distanceAt(at + right), distanceAt(at - up), distanceAt(at + up));
    // What lies behind both its neighbours is seen through a crack between triangles.
    float away = min(distanceAt(at), min(max(around.x, around.y), max(around.z, around.w)));
    if (away > ${FARTHEST.toFixed(1)}) {
      gl_FragColor = vec4(1.0);
      return;
    }
    vec3 point = pointAt(at, away);
    vec3 normal = normalize(cross(along(point, right, around.x, around.y), along(point, up, around.z, around.w)));
    float margin = 0.006 + 0.002 * away;
    vec3 base = point + normal * margin;
    float blocked = 0.0;
    for (int i = 0; i < ${CONTACT_WAYS}; i += 1) {
      vec4 way = ways[i];
      float cosine = dot(way.xyz, normal);
      vec3 to = base + way.xyz * (cosine < 0.0 ? -way.w : way.w);
      vec2 seen = 0.5 - 0.5 * (lens.xy * to.xy + lens.zw * to.z) / to.z;
      float behind = -to.z - distanceAt(seen);
      // A way that ends just behind something is blocked by little: all points share the ways, and each would draw an edge
      // along every corner.
      float depth = clamp((behind - margin) / (${SOFT.toFixed(2)} * way.w), 0.0, 1.0);
      // What is far in front of the point hides it; it does not shade it.
      blocked += abs(cosine) * depth * clamp(1.5 - 3.0 * behind, 0.0, 1.0) * (1.0 - way.w * ${(LONG_LESS / REACH).toFixed(4)});
    }
    // Seen edge on, a pixel is longer than what it should know.
    float facing = clamp(8.0 * dot(normal, normalize(-point)) - 0.4, 0.0, 1.0);
    float fade = facing * clamp(2.5 - away * ${(2.5 / FARTHEST).toFixed(4)}, 0.0, 1.0);
    float dark = min(1.0, blocked * ${(1 / SHARE).toFixed(5)});
    gl_FragColor = vec4(vec3(1.0 - ${STRENGTH.toFixed(2)} * fade * dark), 1.0);
  }`;
