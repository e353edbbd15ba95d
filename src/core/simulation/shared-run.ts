import type { Post } from '../patterns';
import type { Command, TimedCommand } from './commands';
import { TICK_MS } from './rehearsal';

/** A command of a run that several people share, with the one of them who gave it; none where nobody did, as when somebody is lost. */
export interface SharedCommand extends TimedCommand {
  by?: string;
}

/** Somebody who takes part, and the posts that are theirs, by id. */
export interface Member {
  id: string;
  name: string;
  posts: string[];
}

/** What everybody is told: up to which tick it has come, what was told since, how fast it runs, and who takes part. */
export interface Beat {
  tick: number;
  commands: SharedCommand[];
  times: number;
  members: Member[];
}

/** What somebody is told who comes in: the whole run so far, of which document, and who they are in it. */
export interface Opening extends Beat {
  member: string;
  document: string;
  seed: number;
}

/** A run ends after so long. */
const LONGEST_TICKS = 3_600_000 / TICK_MS;
const MOST_MEMBERS = 20;
const MOST_COMMANDS = 20_000;
const LONGEST_NAME = 40;

/**
 * A run that several people share: one clock, one list of commands, each with the tick at which it holds. Everybody reckons the same run from these.
 * Nobody reckons farther than they were told, so that what is told later holds for all at the same moment. A post is one person’s at a time.
 */
export class SharedRun {
  private readonly members = new Map<string, Member>();
  private readonly log: SharedCommand[] = [];
  private told = 0;
  private tick = 0;
  private owedMs = 0;
  private times = 0;

  constructor(
    /** The posts of the layout, and what each works. */
    private readonly posts: readonly Post[],
  ) {}

  /** Takes somebody in; undefined where it is full. Two of one name are told apart by a number. */
  join(id: string, wanted: string): Member | undefined {
    if (this.members.size >= MOST_MEMBERS) return undefined;
    const plain = wanted.trim().slice(0, LONGEST_NAME) || 'Somebody';
    const taken = new Set([...this.members.values()].map(({ name }) => name));
    let name = plain;
    for (let nth = 2; taken.has(name); nth++) name = `${plain} ${nth}`;
    const member = { id, name, posts: [] };
    this.members.set(id, member);
    return member;
  }

  /** Somebody goes, or is lost: their posts are left empty. */
  leave(id: string): void {
    for (const post of this.members.get(id)?.posts ?? []) this.stamp({ kind: 'man', post, on: false });
    this.members.delete(id);
  }

  get isEmpty(): boolean {
    return this.members.size === 0;
  }
  get isGoing(): boolean {
    return this.times > 0;
  }

  /** Everything from the beginning, for somebody who comes in now. */
  get whole(): Beat {
    return { ...this.state, commands: [...this.log] };
  }

  /** What is new since the last beat. */
  beat(): Beat {
    const commands = this.log.slice(this.told);
    this.told = this.log.length;
    return { ...this.state, commands };
  }
  private get state() {
    const members = [...this.members.values()].map((one) => ({ ...one, posts: [...one.posts] }));
    return { tick: this.tick, times: this.times, members };
  }

  /** Time passes; the run goes on as fast as it was told to. */
  pass(ms: number): void {
    this.owedMs += ms * this.times;
    const ticks = Math.floor(this.owedMs / TICK_MS);
    this.owedMs -= ticks * TICK_MS;
    this.tick = Math.min(LONGEST_TICKS, this.tick + ticks);
    if (this.tick === LONGEST_TICKS) this.times = 0;
  }

  setTimes(times: number): void {
    this.times = times;
    this.owedMs = 0;
  }

  /** Somebody tells something; a sentence where they may not. Whether it can be done everybody finds out alike, at its tick. */
  command(by: string, command: Command): string | undefined {
    const member = this.members.get(by);
    if (!member) return 'You no longer take part in this run.';
    if (this.log.length >= MOST_COMMANDS) return 'Nothing more can be told in this run: begin another one.';
    const refused = command.kind === 'man' ? this.takes(member, command) : this.isOthers(member, command);
    if (refused) return refused;
    this.stamp(command, by);
    return undefined;
  }

  /** Whoever is at a post hands it to somebody else. */
  handOver(by: string, post: string, to: string): string | undefined {
    const [from, next] = [this.members.get(by), this.members.get(to)];
    if (!from?.posts.includes(post)) return `You are not at the post of ${this.nameOf(post)}.`;
    if (!next) return 'That person no longer takes part.';
    from.posts = from.posts.filter((one) => one !== post);
    next.posts.push(post);
    return undefined;
  }

  private takes(member: Member, { post, on }: Extract<Command, { kind: 'man' }>): string | undefined {
    const holder = this.holderOf(post);
    if (holder && holder !== member)
      return `${holder.name} is at the post of ${this.nameOf(post)}: ask them to hand it over.`;
    if (!on && !holder) return `You are not at the post of ${this.nameOf(post)}.`;
    member.posts = member.posts.filter((one) => one !== post);
    if (on) member.posts.push(post);
    return undefined;
  }

  /** A signal that a post works is worked by whoever is there. */
  private isOthers(member: Member, command: Command): string | undefined {
    if (!('signal' in command)) return undefined;
    const post = this.posts.find(({ readings }) => readings.some(({ signal }) => signal.id === command.signal));
    if (!post || member.posts.includes(post.id)) return undefined;
    const holder = this.holderOf(post.id);
    if (holder) return `${holder.name} is at the post of ${post.name}, and works its signals.`;
    return command.kind === 'give' ? `Nobody is at the post of ${post.name}: take it first.` : undefined;
  }

  private holderOf = (post: string) => [...this.members.values()].find(({ posts }) => posts.includes(post));
  private nameOf = (post: string) => this.posts.find(({ id }) => id === post)?.name ?? post;
  private stamp(command: Command, by?: string): void {
    this.log.push({ tick: this.tick, command, ...(by !== undefined && { by }) });
  }
}
