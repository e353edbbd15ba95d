import { guarded, readFields } from '@/server/answer';
import { readRecording } from '@/server/read-recording';
import { replayInThread } from '@/server/replay';

/** Runs a browser's rehearsal again on the server and answers with its trace hash, which must be the same. */
export async function POST(request: Request): Promise<Response> {
  return guarded(async () => {
    const recording = readRecording(await readFields(request));
    return recording instanceof Response ? recording : replayInThread(recording);
  });
}
