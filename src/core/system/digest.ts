/** FNV-1a over 32-bit words, in two lanes with different starting values: 64 bits tell two runs, or two systems, apart. */
export class Digest {
  private one = 0x811c9dc5;
  private two = 0x9e3779b9;

  add(word: number): void {
    for (let shift = 0; shift < 32; shift += 8) {
      const byte = (word >>> shift) & 0xff;
      this.one = Math.imul(this.one ^ byte, 0x01000193);
      this.two = Math.imul(this.two ^ byte, 0x01000193);
    }
  }
  /** Its length first, so that two texts one after the other are not taken for two others. */
  addText(text: string): void {
    this.add(text.length);
    for (let i = 0; i < text.length; i++) this.add(text.charCodeAt(i));
  }

  /** Sixteen hexadecimal digits. */
  get text(): string {
    const hex = (n: number) => (n >>> 0).toString(16).padStart(8, '0');
    return hex(this.one) + hex(this.two);
  }
}
