import { replay } from '@/core/simulation';
import { answer, readFields } from '@/server/answer';
import { readRecording } from '@/server/read-recording';

/** Runs a browser's rehearsal again on the server and answers with its trace hash, which must be the same. */
export async function POST(request: Request): Promise<Response> {
  const recording = readRecording(await readFields(request));
  if (recording instanceof Response) return recording;
  const run = replay(recording.document, recording.seed, recording.ticks, recording.commands);
  return answer({ hash: run.traceHash, ticks: run.tick });
}
