declare module 'heic-decode' {
  interface Image {
    width: number;
    height: number;
    decode(): Promise<{ width: number; height: number; data: Uint8ClampedArray }>;
  }
  const decode: { all(given: { buffer: Uint8Array }): Promise<Image[] & { dispose(): void }> };
  export default decode;
}
