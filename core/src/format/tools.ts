/** What a reader may need from outside: where the decoders' binaries are. Absent in Node, which finds them itself. */
export interface ReaderTools {
  /** Address of a decoder's binary by its file name. */
  locate?: (file: string) => string;
  /** Called with 0…1 while a large file is read. */
  onProgress?: (part: number) => void;
}
