export async function bench(_json: boolean): Promise<number> {
  return 0;
}
