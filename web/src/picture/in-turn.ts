/** Makes a queue: what is given to it is begun when all before it has ended, well or not. */
export function turns(): <T>(work: () => Promise<T>) => Promise<T> {
  let last: Promise<unknown> = Promise.resolve();
  return (work) => {
    const done = last.then(work);
    last = done.catch(() => undefined);
    return done;
  };
}
