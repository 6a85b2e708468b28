import type { ProjectBody, SiteLight } from '@eskovan/core/document';
import { lightKey, siteLight, type LightSetting, type SiteInput } from '@eskovan/core/site';
import { SURVEY_ALGORITHM } from '@eskovan/core/survey';

/** What a site is lit by, and the name that it is kept under in that light. */
export interface NamedLight {
  key: string;
  light: SiteLight;
}

/** A light of a project as it is computed and kept. */
export function namedLight(project: ProjectBody, input: SiteInput, setting: LightSetting): NamedLight {
  return nameLight(input, siteLight(project, setting));
}

export const nameLight = (input: Pick<SiteInput, 'models'>, light: SiteLight): NamedLight => ({
  key: lightKey(input, light, SURVEY_ALGORITHM),
  light,
});
