import type { Finding } from '@eskovan/core/check';
import { lengthText, shownIn, type LengthUnit } from '@eskovan/core/document';

const place = ({ stretch }: Finding) => `at ${stretch![0].toFixed(1)} m`;

/** A word or two, for the plan: what is wrong where a line is drawn. */
export function shortFinding(rule: Finding['rule'], size: number | null): string {
  switch (rule) {
    case 'no floor':
      return `no floor for ${size!.toFixed(1)} m`;
    case 'step':
      return `step of ${size!.toFixed(2)} m`;
    case 'headroom':
      return `headroom ${size!.toFixed(2)} m`;
    case 'low':
      return 'something in the way';
    default:
      return rule;
  }
}

/** A finding in a sentence or two: what, where, how much, and what to do. @param lengths what lengths are said in */
export function describeFinding(finding: Finding, lengths: LengthUnit): string {
  const { rule, stretch, from, to, worst, limit, severity } = finding;
  const speed = shownIn('m/s', lengths);
  switch (rule) {
    case 'no floor':
      return `No floor for ${worst!.toFixed(2)} m, from ${stretch![0].toFixed(1)} to ${stretch![1].toFixed(1)} m. The eye keeps its line there; lead the path over a floor.`;
    case 'step':
      return `A step of ${worst!.toFixed(2)} m ${place(finding)}, higher than the walker takes. Lead the path over steps, or change the walker in the Model stage.`;
    case 'headroom':
      return `Headroom ${worst!.toFixed(2)} m ${place(finding)}: less than the walker is tall.`;
    case 'wall':
      return `The path goes through a wall or a pillar ${place(finding)}. Lead it round, or through a door.`;
    case 'closed door':
      return `A door stands in the way ${place(finding)}. Let it open in time, hide its leaf, or lead the path round.`;
    case 'glass':
      return `The path goes through glass ${place(finding)}. Lead it round.`;
    case 'low':
      return `Something stands in the way ${place(finding)}: furniture, a sill or a parapet. Lead the path round.`;
    case 'clearance':
      return `Only ${worst!.toFixed(2)} m to what stands beside the path ${place(finding)}: shoulders need ${limit!.toFixed(2)} m.`;
    case 'gaze off':
      return `The eye keeps to ${limit!}° a second and looks up to ${Math.round(worst!)}° beside what it is to look at, from ${from.toFixed(1)} to ${to.toFixed(1)} s. Give it more time, or look at something farther away.`;
    case 'hidden':
      return `What the camera looks at is hidden for ${worst!.toFixed(1)} s, from ${from.toFixed(1)} to ${to.toFixed(1)} s. Look at it from elsewhere, or at something else meanwhile.`;
    case 'out of frame':
      return `Not all of what the camera looks at is in the frame from ${from.toFixed(1)} to ${to.toFixed(1)} s: up to ${Math.round(100 * worst!)} % beyond its edge. Stand farther away, or take a shorter lens.`;
    case 'near':
      return `Something ${lengthText(worst!, lengths)} before the lens covers much of the picture at ${finding.at!.toFixed(1)} s. Keep ${lengthText(limit!, lengths)} away from it.`;
    case 'eye height':
      return `The eye is ${worst!.toFixed(2)} m over the floor from ${from.toFixed(1)} to ${to.toFixed(1)} s: people have theirs ${worst! > limit! ? 'up to' : 'from'} ${limit!.toFixed(2)} m.`;
    case 'crossing':
      return `While the camera stands, things cross the picture in ${worst!.toFixed(1)} s, from ${from.toFixed(1)} to ${to.toFixed(1)} s: films flicker under ${limit!.toFixed(0)} s.`;
    case 'through':
      return `The camera goes through something at ${from.toFixed(1)} s. Let it keep another distance or height.`;
    case 'met':
      return `Something that moves comes in the way at ${from.toFixed(1)} s. Let it move at another time, or pass elsewhere.`;
    case 'jump':
      return `The camera is ${lengthText(worst!, lengths)} away at once at ${from.toFixed(2)} s. Let its keys change softly, or what carries it go on.`;
    case 'turn jump':
      return `The camera looks ${worst!.toFixed(0)}° elsewhere at once at ${from.toFixed(2)} s. Give the turn time.`;
    case 'lens jump':
      return `The lens is another one at once at ${from.toFixed(2)} s. Let its keys change softly.`;
    case 'jerk':
      return `At ${from.toFixed(2)} s it goes ${(worst! * speed.times).toFixed(2)} ${speed.unit} faster, slower or another way at once. Round the corner there, ease the pace, or what carries the camera.`;
    case 'turn jerk':
      return `At ${from.toFixed(2)} s it turns ${worst!.toFixed(0)}° a second faster or slower at once. Ease the turn there.`;
    case 'key lost':
      return `${worst === 1 ? 'A key was held by a node' : `${worst!} keys were held by nodes`} of the path that ${worst === 1 ? 'is' : 'are'} gone: ${worst === 1 ? 'it does' : 'they do'} nothing now.`;
    case 'not looked at':
      return 'What stands in the way has not been looked at: this site was measured by an older program. It is measured again when its models are next opened.';
    case 'haste':
      return `${worst!.toFixed(2)} m/s is faster than people walk (up to ${limit!} m/s here). Give the walk more time.`;
    case 'turn':
      return (
        `The camera turns by up to ${Math.round(worst!)}° a second from ${from.toFixed(1)} to ${to.toFixed(1)} s` +
        (severity === 'problem' ? ', too fast to follow.' : `, faster than ${limit!}°.`) +
        ' Give it more time, round its corners, or look at something farther away.'
      );
  }
}
