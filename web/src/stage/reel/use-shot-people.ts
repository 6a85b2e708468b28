import { useEffect, useMemo } from 'react';
import { beAbout, useLive } from '../../data/live.ts';
import { usePerson } from '../../data/person.ts';
import { useProject } from '../../data/use-project.ts';

/** Names of those who have chosen a shot just now, by the shot. */
export type ShotPeople = Readonly<Record<string, readonly string[]>>;

/** Who works on which shot; and tells the others which one is worked on here. */
export function useShotPeople(shot: string | null): ShotPeople {
  const { project } = useProject();
  const me = usePerson();
  const here = useLive((state) => state.here);
  useEffect(() => {
    beAbout(shot);
    return () => beAbout(null);
  }, [shot]);
  return useMemo(() => {
    const people: Record<string, string[]> = {};
    for (const { projectId, person, row } of here)
      if (row && projectId === project.id && person.id !== me.id) (people[row] ??= []).push(person.name);
    return people;
  }, [here, me.id, project.id]);
}
