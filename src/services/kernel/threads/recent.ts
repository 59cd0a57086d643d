/** What was used last, up to a size in all; the newest is kept whatever its size. */
export class Recent<T> {
  private readonly all = new Map<string, { value: T; size: number }>();
  private size = 0;

  constructor(private readonly most: number) {}

  get(key: string): T | undefined {
    const found = this.all.get(key);
    if (!found) return undefined;
    this.all.delete(key);
    this.all.set(key, found);
    return found.value;
  }

  set(key: string, value: T, size: number): void {
    this.delete(key);
    this.all.set(key, { value, size });
    this.size += size;
    for (const oldest of this.all.keys()) {
      if (this.size <= this.most || oldest === key) break;
      this.delete(oldest);
    }
  }

  delete(key: string): void {
    const found = this.all.get(key);
    if (!found) return;
    this.all.delete(key);
    this.size -= found.size;
  }
}
