import { type FootprintHazardId, HAZARD_IDS, HAZARDS, type HazardId, hazardsDisplayed } from '../../simulation';
import { HAZARDS_OF_DEED } from '../hazards/hazard-bits';
import { hazardFlag } from './promela-text';
import type { PromelaRules } from './write-rules';

/** A hazard of how two trains stand, as a function in C of the rows of their placements. */
const FOOTPRINTS: Readonly<Record<FootprintHazardId, string>> = {
  'two trains in a block': 'in_one_block',
  'face to face': 'face_to_face',
};

/** The flags of hazards, set. */
const set = (ids: readonly HazardId[]): string => ids.map((id) => `now.${hazardFlag(id)} = 1;`).join(' ');

/** Scans after which rules that still change count as never settling; as many as the explorer waits for. */
const MOST_SCANS = 60;

/** Characters in one text of C. */
const MOST_TEXT = 30_000;

/** What a step of the Promela model does at once, in C: the inputs, one scan of the rules, what drivers make of what they see, how trains stand. */
export function plantFunctions(rules: PromelaRules, oneScan: boolean): string[] {
  const footprints = HAZARD_IDS.flatMap((id) => {
    const called = HAZARDS[id].found.in === 'footprints' ? FOOTPRINTS[id as FootprintHazardId] : undefined;
    return called ? [`  if (${called}(r, s)) { ${set([id])} }`] : [];
  });
  const ofRules = HAZARD_IDS.filter((id) => HAZARDS[id].found.in === 'rules');
  const memory = Math.max(1, rules.memory);
  const scans = inParts(rules.scan);
  return [
    `
static int row(int t) { return base[t] + now.at[t]; }
static int aspect(int signal) { return now.value[aspect_slot[signal]]; }
static int is_at_stop(int signal) { return stops_in[aspect(signal)] == 1; }
static int has(const int *of, const int *at, int r, int what) {
  int i;
  for (i = at[r]; i < at[r + 1]; i++) if (of[i] == what) return 1;
  return 0;
}

static void inputs(void) {
  char seen[SENSORS + 1] = {0};
  int t, i, s, m;
  for (t = 0; t < TRAINS; t++) for (i = seen_at[row(t)]; i < seen_at[row(t) + 1]; i++) seen[seen_of[i]] = 1;
  for (s = 0; s < SENSORS; s++) now.value[detector_slot[s]] = fed_by[s] >= 0 && now.dead[fed_by[s]] ? 0 : seen[s];
  for (m = 0; m < MOTORS; m++) now.value[contact_slot[m]] = now.lies[m] > 1 ? 2 : now.lies[m];
}

`,
    ...scans.map((lines, part) => `static void scan_${part}(int *temp) {\n${lines.join('\n')}\n(void)temp; }`),
    `
/* One scan; whether anything that PREVIOUS reads has changed. */
static int scan(void) {
  int temp[${Math.max(1, rules.temporary)}], i, changed = 0;
  ${scans.map((_, part) => `scan_${part}(temp);`).join(' ')}
  for (i = 0; i < PREVIOUS; i++) if (now.before[previous_slot[i]] != now.value[previous_slot[i]]) {
    now.before[previous_slot[i]] = now.value[previous_slot[i]];
    changed = 1;
  }
  return changed;
}
`,
    `
/* A train is committed past everything before what it must stop at now. */
static void commit(int t) {
  const int r = row(t), count = ahead_count[r];
  int stop = count, known = 1, next = 0, k, o, i = ahead_at[r], same;
  if (count == 0) { now.past[t] = 0; now.counted[t] = 0; return; }
  for (k = 0; k < count; k++) {
    const int signal = ahead_of[i], over = ahead_of[i + 1];
    same = 1;
    for (o = 0; o < over; o++) {
      const int motor = ahead_of[i + 2 + 2 * o];
      if (now.lies[motor] > 1) known = 0;
      if (now.lies[motor] != ahead_of[i + 3 + 2 * o]) same = 0;
    }
    i += 2 + 2 * over;
    if (!known || stop != count || !same) continue;
    if (signal < 0) { stop = k; continue; }
    if (next == 0) next = stops_in[aspect(signal)]; else next--;
    if (next == 1) stop = k;
  }
  if (stop > now.past[t]) now.past[t] = stop;
  for (k = 0, i = ahead_at[r]; k < count; k++) {
    const int signal = ahead_of[i];
    if (signal >= 0 && now.past[t] > k && !is_at_stop(signal)) now.counted[t] |= 1 << k;
    i += 2 + 2 * ahead_of[i + 1];
  }
}

static int in_one_block(int r, int s) {
  int i;
  for (i = blocks_at[r]; i < blocks_at[r + 1]; i++) if (has(blocks_of, blocks_at, s, blocks_of[i])) return 1;
  return 0;
}
static int face_to_face(int r, int s) {
  int i, k;
  for (i = courses_at[r]; i < courses_at[r + 1]; i += 5)
    for (k = courses_at[s]; k < courses_at[s + 1]; k += 5) {
      const int *mine = courses_of + i, *theirs = courses_of + k;
      const int *onward = mine[2] ? theirs : mine, *back = mine[2] ? mine : theirs;
      if (mine[0] != theirs[0] || mine[2] == theirs[2]) continue;
      if (mine[1] || onward[3] <= back[4]) return 1;
    }
  return 0;
}
static int foul(const int *of, const int *at, int r, int s) {
  int i;
  for (i = at[r]; i < at[r + 1]; i++) if (has(of, at, s, of[i] ^ 1)) return 1;
  return 0;
}

/* How the trains of rows r and s lie to each other: 0 apart, 1 the first lower, 2 the second, 3 each on a piece of a ring; 4 they can touch, 8 they lie across each other. */
static int touch(int r, int s, int order_before, int first_moved) {
  int i, k, order = 0, possible;
  if (foul(throughout_of, throughout_at, r, s)) return 12;
  possible = foul(zones_of, zones_at, r, s);
  for (i = ground_at[r]; i < ground_at[r + 1]; i += 6)
    for (k = ground_at[s]; k < ground_at[s + 1]; k += 6) {
      const double *own = ground_of + i, *other = ground_of + k, *lower, *higher;
      int now_is;
      if (own[0] != other[0]) continue;
      now_is = (own[3] < other[2] ? 1 : 0) | (other[3] < own[2] ? 2 : 0);
      if (now_is == 3)
        now_is = order_before % 3 ? order_before : ((first_moved ? own : other)[5] == first_moved) ? 1 : 2;
      if (now_is == 0) return 12;
      lower = now_is == 1 ? own : other;
      higher = now_is == 1 ? other : own;
      if ((lower[5] || !higher[5]) && lower[4] > higher[1]) possible = 1;
      order |= now_is;
    }
  if (order_before && order && !(order & order_before)) return 12;
  return order | (possible ? 4 : 0);
}

/* The hazards that lie in where a train has come to, beside another one; and their order. */
static void look(int t, int o) {
  const int first = t < o ? t : o, second = t < o ? o : t, two = second * (second - 1) / 2 + first;
  const int r = row(first), s = row(second);
  int found;
  if (now.at[t] == base_off[t] || now.at[o] == base_off[o]) { now.order[two] = 0; return; }
${footprints.join('\n')}
  found = touch(r, s, now.order[two], t == first);
  now.order[two] = found & 3;
  if (found & 4) { ${set(HAZARDS_OF_DEED.touches)} }
  if (found & 8) now.ended = 1;
}

static int lie_so(const int *of, int i, int end) {
  for (; i < end; i += 2) if (now.lies[of[i]] != of[i + 1]) return 0;
  return 1;
}

/* Once all is settled, and when a train has gone on without being noticed. */
static void over_a_train(void) {
  int t, i;
  for (t = 0; t < TRAINS; t++)
    for (i = stood_at[row(t)]; i < stood_at[row(t) + 1]; i++) {
      const int way = stood_of[i];
      if (promises[aspect(route_signal[way])] && lie_so(route_lies_of, route_lies_at[way], route_lies_at[way + 1])) { ${set(hazardsDisplayed('over a train'))} }
    }
}

static void settle(void) {
  unsigned char was[${memory}];
  int scans, i, t, m, p, changed, moved;
  inputs();
  for (scans = 0;; scans++) {
    changed = now.events;
    moved = 0;
    for (i = 0; i < ${rules.memory}; i++) was[i] = now.memo[i];
    if (now.extra) now.value[detector_slot[now.extra - 1]] = 1;
    if (scan()) changed = 1;
    /* Two at once are a hazard even for one scan. */
    for (i = 0; i < CONFLICTS; i++) {
      const int *one = conflict_of + conflict_at[i];
      if (!is_at_stop(one[0]) && !is_at_stop(one[1]) && lie_so(conflict_of, conflict_at[i] + 2, conflict_at[i + 1])) { ${set(hazardsDisplayed('two at once'))} }
    }
    for (i = 0; i < ${rules.memory}; i++) if (was[i] != now.memo[i]) changed = 1;
    now.events = 0;
    if (now.extra) { now.extra = 0; inputs(); }
    for (i = 0; i < MOMENTARY; i++) now.value[momentary[i]] = 0;
    for (i = 0; i < ${rules.timers.length}; i++) now.ends[i] = 0;
    for (t = 0; t < TRAINS; t++) commit(t);
    for (m = 0; m < MOTORS; m++) {
      const int drive = now.value[drive_slot[m]];
      if (now.lies[m] % 2 == drive) continue;
      now.lies[m] = 2 + drive;
      moved = 1;
      for (t = 0; t < TRAINS; t++) if (has(over_of, over_at, row(t), m)) { ${set(HAZARDS_OF_DEED['points move under it'])} }
    }
    for (p = 0; p < POWERS; p++) {
      const int off = !feeds[now.value[power_slot[p]]];
      if (off == now.dead[p]) continue;
      now.dead[p] = off;
      moved = 1;
    }
    if (moved) inputs();
    else if (!changed) break;
    if (scans > ${MOST_SCANS}) { ${set(ofRules)} now.ended = 1; break; }
  }
  over_a_train();
}

static void clear(void) { ${HAZARD_IDS.map((id) => `now.${hazardFlag(id)} = 0;`).join(' ')} }
/* Something is done by itself, or as a second thing within one scan; the rules must be scanned then. */
static int alone(void) { return !now.ended && now.todo == 0 && now.work == 0; }
static int second(int thing) {
  return alone() || (${oneScan ? 1 : 0} && !now.ended && now.todo == 0 && now.work == 1 && now.events == 1 && now.who >= 0 && now.who != thing);
}
static void takes(int thing) {
  if (now.work == 0) { clear(); now.events = 0; }
  now.events++;
  now.who = thing;
  now.work = 1;
}
static int to_look(int t, int commits) { return 1 + t * 2 * (TRAINS + 1) + commits; }
`,
    `
/* A person says something of a train where no other stands in the same single-line section. */
static void say_of(int t, const int *of, int from, int to) {
  int o, i;
  for (; from < to; from += 3) {
    int shared = 0;
    for (o = 0; o < TRAINS; o++) if (o != t)
      for (i = held_at[row(o)]; i < held_at[row(o) + 1]; i++) if (section_of[held_of[i]] == of[from]) shared = 1;
    if (of[from + 2] || !shared) now.value[of[from + 1]] = 1;
  }
}

/* Where the k-th thing before a train is written. */
static int thing(int r, int k) {
  int i = ahead_at[r];
  while (k-- > 0) i += 2 + 2 * ahead_of[i + 1];
  return i;
}
static int may_advance(int t, int way) {
  const int r = row(t), a = advance_at[r] + way;
  int i, o;
  if (a >= advance_at[r + 1] || !(is_seen[a] ? second(t) : alone())) return 0;
  int fed = wants_power_at[a] == wants_power_at[a + 1];
  for (i = wants_power_at[a]; i < wants_power_at[a + 1]; i++) if (!now.dead[wants_power_of[i]]) fed = 1;
  if (!fed) return 0;
  for (i = gates_at[a]; i < gates_at[a + 1]; i++) {
    const int at = thing(r, gates_of[i]), signal = ahead_of[at];
    int coming = 1;
    for (o = 0; o < ahead_of[at + 1]; o++) {
      const int lies = now.lies[ahead_of[at + 2 + 2 * o]];
      if (lies < 2 && lies != ahead_of[at + 3 + 2 * o]) coming = 0;
    }
    if (now.past[t] <= gates_of[i] && coming && (signal < 0 || is_at_stop(signal))) return 0;
  }
  for (i = onto_at[a]; i < onto_at[a + 1]; i += 3)
    if (onto_of[i + 2] && now.lies[onto_of[i]] < 2 && now.lies[onto_of[i]] != onto_of[i + 1]) return 0;
  return 1;
}
static void advance(int t, int way) {
  const int r = row(t), a = advance_at[r] + way;
  int i, past = 0, counted = 0;
  if (off_the_end[a]) { clear(); ${set(HAZARDS_OF_DEED['leaves the track'])} return; }
  if (is_seen[a]) takes(t); else clear();
  for (i = passes_at[a]; i < passes_at[a + 1]; i++) {
    if (!is_at_stop(ahead_of[thing(r, passes_of[i])])) continue;
    if (now.counted[t] & (1 << passes_of[i])) { ${set(HAZARDS_OF_DEED['passes a signal that dropped'])} }
    else { ${set(HAZARDS_OF_DEED['passes a stop unannounced'])} }
  }
  for (i = onto_at[a]; i < onto_at[a + 1]; i += 3)
    if (now.lies[onto_of[i]] != onto_of[i + 1]) { ${set(HAZARDS_OF_DEED['meets wrong points'])} }
  for (i = carry_at[a]; i < carry_at[a + 1]; i++) {
    const int k = i - carry_at[a], carried = carry_of[i];
    if (carried < 0) continue;
    if (now.past[t] > k && past < carried + 1) past = carried + 1;
    if (now.counted[t] & (1 << k)) counted |= 1 << carried;
  }
  now.at[t] = leads_to[a];
  now.past[t] = past;
  now.counted[t] = counted;
  now.todo = to_look(t, !is_seen[a]);
}

static int may_turn(int t, int choice) { return alone() && turn_at[row(t)] + choice < turn_at[row(t) + 1]; }
static void turn(int t, int choice) {
  const int n = turn_at[row(t)] + choice;
  takes(-1);
  now.at[t] = turns_to[n];
  now.past[t] = 0;
  now.counted[t] = 0;
  now.todo = to_look(t, 0);
  say_of(t, turn_says_of, turn_says_at[n], turn_says_at[n + 1]);
}

static int may_set_down(int t) {
  int o, i;
  if (!alone() || now.at[t] != base_off[t]) return 0;
  for (o = 0; o < TRAINS; o++) if (o != t)
    for (i = pieces_at[base[t]]; i < pieces_at[base[t] + 1]; i++) if (has(pieces_of, pieces_at, row(o), pieces_of[i])) return 0;
  return 1;
}
static void set_down(int t) {
  int m;
  takes(-1);
  now.at[t] = 0;
  for (m = 0; m < MOTORS; m++)
    if (now.lies[m] > 1 && has(over_of, over_at, row(t), m)) { ${set(HAZARDS_OF_DEED['points move under it'])} }
  now.todo = to_look(t, 0);
  say_of(t, start_says_of, start_says_at[t], start_says_at[t + 1]);
}

static int is_away(int signal, int rear) {
  int t;
  if (is_at_stop(signal)) return 1;
  for (t = 0; t < TRAINS; t++) if (has(held_of, held_at, row(t), rear)) return 0;
  return 1;
}
static int is_empty(int block) {
  int t;
  for (t = 0; t < TRAINS; t++) if (has(surely_of, surely_at, row(t), block)) return 0;
  return 1;
}
static int is_off(int motor) {
  int t;
  for (t = 0; t < TRAINS; t++) if (has(over_of, over_at, row(t), motor)) return 0;
  return 1;
}
static int may_say_free(int nth) {
  const int *free = free_of + free_at[nth];
  return alone() && now.value[free[2]] == 1 && is_empty(free[0]);
}
static void say_free(int nth) { takes(-1); now.value[free_of[free_at[nth] + 1]] = 1; }
static int may_say_taken(int nth) { return alone() && now.value[free_of[free_at[nth] + 2]] != 1; }
static void say_taken(int nth) { takes(-1); now.value[free_of[free_at[nth] + 3]] = 1; }
`,
  ];
}

/** Statements in parts that Spin can take. */
function inParts(lines: readonly string[]): string[][] {
  const parts: string[][] = [[]];
  let long = 0;
  for (const line of lines) {
    if (long + line.length > MOST_TEXT) {
      parts.push([]);
      long = 0;
    }
    parts.at(-1)!.push(line);
    long += line.length;
  }
  return parts;
}
