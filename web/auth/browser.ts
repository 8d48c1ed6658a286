const browsers: [RegExp, string][] = [
  [/Edg\//, 'Edge'],
  [/OPR\//, 'Opera'],
  [/Firefox\//, 'Firefox'],
  [/Chrom(e|ium)\//, 'Chrome'],
  [/Safari\//, 'Safari'],
];
const systems: [RegExp, string][] = [
  [/iPhone|iPad/, 'iOS'],
  [/Android/, 'Android'],
  [/Windows/, 'Windows'],
  [/Mac OS/, 'macOS'],
  [/Linux/, 'Linux'],
];

/** What a browser calls itself, as people would: "Firefox on Linux". */
export function browserOf(agent: string | null): string {
  const named = (list: [RegExp, string][]) => list.find(([like]) => like.test(agent ?? ''))?.[1];
  const browser = named(browsers) ?? 'A program',
    system = named(systems);
  return system ? `${browser} on ${system}` : browser;
}
