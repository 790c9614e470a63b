/** Who is at the desk of which work. Kept in memory: it is about this moment only. */
export interface Here {
  /** @returns the others who are there */
  note(work: string, person: string, name: string, now: number): string[];
}

/** @param lasting milliseconds after which somebody who says nothing has gone */
export function presence(lasting: number): Here {
  const works = new Map<string, Map<string, { name: string; until: number }>>();

  function sweep(now: number): void {
    for (const [work, people] of works) {
      for (const [person, { until }] of people) if (until <= now) people.delete(person);
      if (people.size === 0) works.delete(work);
    }
  }

  return {
    note(work, person, name, now) {
      sweep(now);
      const people = works.get(work) ?? new Map<string, { name: string; until: number }>();
      works.set(work, people);
      people.set(person, { name, until: now + lasting });
      return [...people].flatMap(([id, one]) => (id === person ? [] : [one.name]));
    },
  };
}
