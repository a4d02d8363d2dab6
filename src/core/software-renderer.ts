/** Whether pictures are worked out by the processor, by what a renderer calls itself. */
export const isSoftwareRenderer = (name: string): boolean =>
  /swiftshader|llvmpipe|softpipe|basic render/i.test(name);
