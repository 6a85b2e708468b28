export interface PictureSize {
  /** pixels */
  width: number;
  height: number;
  /**
   * The frame inside the picture, pixels, centred; what lies outside is drawn too (for the mask). Default: the whole
   * picture is the frame.
   */
  frame?: { width: number; height: number };
}
