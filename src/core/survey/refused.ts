/** An edit that cannot be done; its message says why and what to do. */
export class Refused extends Error {}

export const refuse = (problem: string): never => {
  throw new Refused(problem);
};
