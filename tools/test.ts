export async function test(): Promise<number> {
  return 0;
}
