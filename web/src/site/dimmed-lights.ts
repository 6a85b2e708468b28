import { dimmersOf } from '@eskovan/core/action';
import type { LitBody, ProjectDocument } from '@eskovan/core/document';
import { lightOfLamps, siteLight, type LightSetting, type SiteInput } from '@eskovan/core/site';
import { fileUrl } from '../data/api.ts';
import { nameLight, type NamedLight } from './named-light.ts';
import { actionsOf, type LitFiles } from './picture-scene.ts';

/** What the lamps of each dimmer of a project give of a light, in their order; null for those that are off in it. */
export function dimmedLights(
  { project, model, action }: Pick<ProjectDocument, 'project' | 'model' | 'action'>,
  input: Pick<SiteInput, 'models'>,
  setting: LightSetting,
): (NamedLight | null)[] {
  const whole = siteLight(project.body, setting);
  return dimmersOf(actionsOf({ model, action })).map((lamps) => {
    const light = lightOfLamps(whole, lamps);
    return light && nameLight(input, light);
  });
}

/** A light with what its dimmed lamps give of it; null while any of that is not known. */
export function withDimmed(
  lit: LitBody,
  dimmed: readonly (NamedLight | null)[],
  known: Readonly<Record<string, LitBody>>,
): LitFiles | null {
  if (dimmed.every((one) => one === null)) return lit;
  const bodies = dimmed.map((one) => (one ? known[one.key] : null));
  // A rough light has other rays than they have.
  if (lit.first || bodies.includes(undefined)) return null;
  return { ...lit, lamps: bodies.map((body) => (body ? fileUrl(body.scene.sha256) : null)) };
}
